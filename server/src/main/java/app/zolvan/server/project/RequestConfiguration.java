package app.zolvan.server.project;

import app.zolvan.core.assign.Side;
import app.zolvan.server.account.Account;
import app.zolvan.server.problem.Problem;
import io.swagger.v3.oas.models.Operation;
import io.swagger.v3.oas.models.media.Schema;
import io.swagger.v3.oas.models.media.StringSchema;
import io.swagger.v3.oas.models.media.UUIDSchema;
import io.swagger.v3.oas.models.parameters.HeaderParameter;
import io.swagger.v3.oas.models.parameters.Parameter;
import io.swagger.v3.oas.models.parameters.PathParameter;
import io.swagger.v3.oas.models.parameters.QueryParameter;
import java.security.Principal;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.customizers.OperationCustomizer;
import org.springdoc.core.utils.SpringDocUtils;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.MethodParameter;
import org.springframework.http.HttpHeaders;
import org.springframework.security.core.Authentication;
import org.springframework.web.bind.support.WebDataBinderFactory;
import org.springframework.web.context.request.NativeWebRequest;
import org.springframework.web.context.request.RequestAttributes;
import org.springframework.web.method.HandlerMethod;
import org.springframework.web.method.support.HandlerMethodArgumentResolver;
import org.springframework.web.method.support.ModelAndViewContainer;
import org.springframework.web.servlet.HandlerMapping;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/**
 * {@link Query} and {@link Edit} as arguments of controllers, read from the path's project, the scheme in a header (in a plain
 * link, in the query), the side in the query, and what the sender has seen in headers; and their place in the API's description.
 */
@Configuration
class RequestConfiguration implements WebMvcConfigurer {
    private static final String SCHEME = "scheme";
    private static final String SIDE = "seen";

    static {
        SpringDocUtils.getConfig().addRequestWrapperToIgnore(Query.class, Edit.class);
    }

    @Override
    public void addArgumentResolvers(List<HandlerMethodArgumentResolver> resolvers) {
        resolvers.add(new Resolver());
    }

    private static final class Resolver implements HandlerMethodArgumentResolver {
        @Override
        public boolean supportsParameter(MethodParameter parameter) {
            return parameter.getParameterType() == Query.class || parameter.getParameterType() == Edit.class;
        }

        @Override
        public Object resolveArgument(
                MethodParameter parameter,
                ModelAndViewContainer container,
                NativeWebRequest request,
                WebDataBinderFactory binders) {
            Account account = account(request.getUserPrincipal());
            UUID project = project(request);
            Side side = "back".equals(request.getParameter(SIDE)) ? Side.BACK : Side.FRONT;
            if (parameter.getParameterType() == Query.class) {
                return new Query(account, project, scheme(request), side);
            }
            Seen seen = Seen.ofHeaders(request.getHeader(HttpHeaders.IF_MATCH), request.getHeader(Seen.KEY_HEADER));
            return new Edit(account, project, scheme(request), side, seen);
        }

        private static Account account(@Nullable Principal principal) {
            if (principal instanceof Authentication signedIn && signedIn.getPrincipal() instanceof Account account) {
                return account;
            }
            throw new IllegalStateException("a request about a project without an account");
        }

        private static UUID project(NativeWebRequest request) {
            Map<?, ?> path = (Map<?, ?>) request.getAttribute(
                    HandlerMapping.URI_TEMPLATE_VARIABLES_ATTRIBUTE, RequestAttributes.SCOPE_REQUEST);
            return id(path == null ? "" : String.valueOf(path.get("id")), "project");
        }

        private static @Nullable UUID scheme(NativeWebRequest request) {
            String header = request.getHeader(ProjectRequest.SCHEME_HEADER);
            String name = header == null ? request.getParameter(SCHEME) : header;
            return name == null || name.isEmpty() ? null : id(name, SCHEME);
        }

        private static UUID id(String word, String thing) {
            try {
                return UUID.fromString(word);
            } catch (IllegalArgumentException e) {
                throw Problem.notFound(thing);
            }
        }
    }

    @Bean
    OperationCustomizer projectRequests() {
        return (operation, method) -> {
            boolean edit = takes(method, Edit.class);
            if (edit || takes(method, Query.class)) {
                add(operation, new PathParameter().name("id").required(true), new UUIDSchema());
                add(
                        operation,
                        new HeaderParameter().name(ProjectRequest.SCHEME_HEADER).required(false),
                        new UUIDSchema());
                add(operation, new QueryParameter().name(SIDE).required(false), side());
            }
            if (edit) {
                add(operation, new HeaderParameter().name(HttpHeaders.IF_MATCH).required(false), new StringSchema());
                add(operation, new HeaderParameter().name(Seen.KEY_HEADER).required(false), new StringSchema());
            }
            return operation;
        };
    }

    private static boolean takes(HandlerMethod method, Class<?> argument) {
        return Arrays.stream(method.getMethodParameters()).anyMatch(p -> p.getParameterType() == argument);
    }

    private static Schema<?> side() {
        StringSchema side = new StringSchema();
        side.addEnumItem("front");
        side.addEnumItem("back");
        return side;
    }

    private static void add(Operation operation, Parameter parameter, Schema<?> schema) {
        operation.addParametersItem(parameter.schema(schema));
    }
}
