package app.zolvan.server.config;

import app.zolvan.server.guard.SessionAge;
import app.zolvan.server.problem.ProblemWriter;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.time.Clock;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.security.authentication.AuthenticationManager;
import org.springframework.security.authentication.AuthenticationServiceException;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configurers.AbstractHttpConfigurer;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.context.SecurityContextHolderFilter;
import org.springframework.security.web.header.writers.CrossOriginOpenerPolicyHeaderWriter.CrossOriginOpenerPolicy;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter.ReferrerPolicy;

/** Who may do what: everything under /api needs a signed-in designer, and every change the CSRF token. */
@Configuration
class SecurityConfiguration {
    private static final String CONTENT_POLICY = "default-src 'self'; img-src 'self' blob: data:; "
            + "style-src 'self' 'unsafe-inline'; font-src 'self' data:; connect-src 'self' blob:; "
            + "worker-src 'self' blob:; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'";
    private static final String PERMISSIONS = "camera=(), microphone=(), geolocation=(), payment=(), usb=(), serial=()";

    /** The worker that runs WebAssembly kernels, whose glue compiles code; it reaches nothing but this server. */
    private static final String WORKER_POLICY =
            "default-src 'self'; script-src 'self' 'unsafe-eval'; object-src 'none'; frame-ancestors 'none'";

    private static final String WORKER = "/assets/worker-";

    @Bean
    SecurityFilterChain security(HttpSecurity http, ProblemWriter problems, ZolvanProperties properties, Clock clock)
            throws Exception {
        http.authorizeHttpRequests(r -> r.requestMatchers("/api/session/**", "/api/session")
                        .permitAll()
                        .requestMatchers("/api/**", "/v3/**", "/third-party-java.txt")
                        .authenticated()
                        .requestMatchers("/actuator/health/**")
                        .permitAll()
                        .requestMatchers("/actuator/**")
                        .denyAll()
                        .anyRequest()
                        .permitAll())
                .addFilterBefore(new SessionAge(properties.sessionLongest(), clock), SecurityContextHolderFilter.class)
                .csrf(c -> c.spa())
                .formLogin(AbstractHttpConfigurer::disable)
                .httpBasic(AbstractHttpConfigurer::disable)
                .logout(AbstractHttpConfigurer::disable)
                .requestCache(c -> c.disable())
                .headers(h -> h.addHeaderWriter((request, response) -> response.setHeader(
                                "Content-Security-Policy",
                                request.getRequestURI().startsWith(WORKER) ? WORKER_POLICY : CONTENT_POLICY))
                        .addHeaderWriter(SecurityConfiguration::keepNothing)
                        .permissionsPolicyHeader(p -> p.policy(PERMISSIONS))
                        .crossOriginOpenerPolicy(p -> p.policy(CrossOriginOpenerPolicy.SAME_ORIGIN))
                        .referrerPolicy(p -> p.policy(ReferrerPolicy.SAME_ORIGIN))
                        .cacheControl(c -> c.disable()))
                .exceptionHandling(e -> e.authenticationEntryPoint((request, response, x) -> problems.write(
                                response,
                                HttpStatus.UNAUTHORIZED,
                                "signed-out",
                                "You are signed out. Sign in to go on."))
                        .accessDeniedHandler((request, response, x) -> problems.write(
                                response,
                                HttpStatus.FORBIDDEN,
                                "forbidden",
                                "That was not allowed. Reload the page and try again.")));
        return http.build();
    }

    /** Answers about projects and people stay in no cache but where they say so themselves. */
    private static void keepNothing(HttpServletRequest request, HttpServletResponse response) {
        if (request.getRequestURI().startsWith("/api/") && response.getHeader(HttpHeaders.CACHE_CONTROL) == null) {
            response.setHeader(HttpHeaders.CACHE_CONTROL, "no-store");
        }
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
