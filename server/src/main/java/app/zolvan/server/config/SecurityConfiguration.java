package app.zolvan.server.config;

import app.zolvan.server.problem.ProblemAdvice;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.Clock;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
import org.springframework.security.authentication.AuthenticationManager;
import org.springframework.security.authentication.AuthenticationServiceException;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configurers.AbstractHttpConfigurer;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter.ReferrerPolicy;
import tools.jackson.databind.json.JsonMapper;

/** Who may do what: everything under /api needs a signed-in designer, and every change the CSRF token. */
@Configuration
class SecurityConfiguration {
    private static final String CONTENT_POLICY = "default-src 'self'; img-src 'self' blob: data:; "
            + "style-src 'self' 'unsafe-inline'; font-src 'self' data:; connect-src 'self' blob:; "
            + "worker-src 'self' blob:; object-src 'none'; base-uri 'none'; frame-ancestors 'none'";

    /** The worker that runs WebAssembly kernels has no page, no cookies and no say over one; their glue compiles code. */
    private static final String WORKER_POLICY =
            "default-src 'self'; script-src 'self' 'unsafe-eval'; object-src 'none'";

    private static final String WORKER = "/assets/worker-";

    @Bean
    SecurityFilterChain security(HttpSecurity http, JsonMapper json) throws Exception {
        http.authorizeHttpRequests(r -> r.requestMatchers("/api/session/**", "/api/session")
                        .permitAll()
                        .requestMatchers("/api/**", "/v3/api-docs/**")
                        .authenticated()
                        .requestMatchers("/actuator/health/**")
                        .permitAll()
                        .requestMatchers("/actuator/**")
                        .denyAll()
                        .anyRequest()
                        .permitAll())
                .csrf(c -> c.spa())
                .formLogin(AbstractHttpConfigurer::disable)
                .httpBasic(AbstractHttpConfigurer::disable)
                .logout(AbstractHttpConfigurer::disable)
                .requestCache(c -> c.disable())
                .headers(h -> h.addHeaderWriter((request, response) -> response.setHeader(
                                "Content-Security-Policy",
                                request.getRequestURI().startsWith(WORKER) ? WORKER_POLICY : CONTENT_POLICY))
                        .referrerPolicy(p -> p.policy(ReferrerPolicy.SAME_ORIGIN))
                        .cacheControl(c -> c.disable()))
                .exceptionHandling(e -> e.authenticationEntryPoint((request, response, x) -> write(
                                json,
                                response,
                                ProblemAdvice.detail(
                                        HttpStatus.UNAUTHORIZED,
                                        "signed-out",
                                        "You are signed out. Sign in to go on.")))
                        .accessDeniedHandler((request, response, x) -> write(
                                json,
                                response,
                                ProblemAdvice.detail(
                                        HttpStatus.FORBIDDEN,
                                        "forbidden",
                                        "That was not allowed. Reload the page and try again."))));
        return http.build();
    }

    private static void write(JsonMapper json, HttpServletResponse response, ProblemDetail detail) throws IOException {
        response.setStatus(detail.getStatus());
        response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
        json.writeValue(response.getOutputStream(), detail);
    }

    /** Signing in goes through our own service; this keeps Spring from making up a user of its own. */
    @Bean
    AuthenticationManager noOtherWayIn() {
        return authentication -> {
            throw new AuthenticationServiceException("sign in through /api/session");
        };
    }

    @Bean
    Clock clock() {
        return Clock.systemUTC();
    }
}
