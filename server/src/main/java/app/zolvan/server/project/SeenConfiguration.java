package app.zolvan.server.project;

import io.swagger.v3.oas.models.media.StringSchema;
import io.swagger.v3.oas.models.parameters.HeaderParameter;
import java.util.Arrays;
import java.util.List;
import org.springdoc.core.customizers.OperationCustomizer;
import org.springdoc.core.utils.SpringDocUtils;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.MethodParameter;
import org.springframework.http.HttpHeaders;
import org.springframework.web.bind.support.WebDataBinderFactory;
import org.springframework.web.context.request.NativeWebRequest;
import org.springframework.web.method.support.HandlerMethodArgumentResolver;
import org.springframework.web.method.support.ModelAndViewContainer;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** Commands take {@link Seen} from their request's headers, and the API's description says so. */
@Configuration
class SeenConfiguration implements WebMvcConfigurer {
    static {
        SpringDocUtils.getConfig().addRequestWrapperToIgnore(Seen.class);
    }

    @Override
    public void addArgumentResolvers(List<HandlerMethodArgumentResolver> resolvers) {
        resolvers.add(new Resolver());
    }

    private static final class Resolver implements HandlerMethodArgumentResolver {
        @Override
        public boolean supportsParameter(MethodParameter parameter) {
            return parameter.getParameterType() == Seen.class;
        }

        @Override
        public Object resolveArgument(
                MethodParameter parameter,
                ModelAndViewContainer container,
                NativeWebRequest request,
                WebDataBinderFactory binders) {
            return Seen.ofHeaders(request.getHeader(HttpHeaders.IF_MATCH), request.getHeader(Seen.KEY_HEADER));
        }
    }

    @Bean
    OperationCustomizer seenHeaders() {
        return (operation, method) -> {
            if (Arrays.stream(method.getMethodParameters()).anyMatch(p -> p.getParameterType() == Seen.class)) {
                operation.addParametersItem(header(HttpHeaders.IF_MATCH));
                operation.addParametersItem(header(Seen.KEY_HEADER));
            }
            return operation;
        };
    }

    private static HeaderParameter header(String name) {
        HeaderParameter header = new HeaderParameter();
        header.setName(name);
        header.setRequired(false);
        header.setSchema(new StringSchema());
        return header;
    }
}
