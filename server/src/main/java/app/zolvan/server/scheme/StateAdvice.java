package app.zolvan.server.scheme;

import app.zolvan.server.project.ProjectRequest;
import org.springframework.core.MethodParameter;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.converter.HttpMessageConverter;
import org.springframework.http.server.ServerHttpRequest;
import org.springframework.http.server.ServerHttpResponse;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.servlet.mvc.method.annotation.ResponseBodyAdvice;

/** Tags a project's state with its version and scheme: a view of another scheme of the same version is another answer. */
@RestControllerAdvice
class StateAdvice implements ResponseBodyAdvice<ProjectState> {
    @Override
    public boolean supports(MethodParameter returned, Class<? extends HttpMessageConverter<?>> converter) {
        return returned.getParameterType() == ProjectState.class;
    }

    @Override
    public ProjectState beforeBodyWrite(
            ProjectState state,
            MethodParameter returned,
            MediaType type,
            Class<? extends HttpMessageConverter<?>> converter,
            ServerHttpRequest request,
            ServerHttpResponse response) {
        response.getHeaders().setETag("\"" + state.version() + "-" + state.scheme() + "\"");
        response.getHeaders().add(HttpHeaders.VARY, ProjectRequest.SCHEME_HEADER);
        return state;
    }
}
