package app.zolvan.server.config;

import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.media.Schema;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.CacheControl;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistry;
import org.springframework.web.servlet.config.annotation.ViewControllerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** The front end's files and addresses, and the API's description. */
@Configuration
class WebConfiguration implements WebMvcConfigurer {

    /** Addresses that the front end shows by itself. */
    @Override
    public void addViewControllers(ViewControllerRegistry registry) {
        for (String path : List.of("/", "/sign-in", "/projects", "/projects/{id}", "/notices")) {
            registry.addViewController(path).setViewName("forward:/index.html");
        }
    }

    /** Built files carry a digest in their names and never change; the page itself is always asked for again. */
    @Override
    public void addResourceHandlers(ResourceHandlerRegistry registry) {
        registry.addResourceHandler("/assets/**", "/environments/**")
                .addResourceLocations(
                        "classpath:/META-INF/resources/assets/", "classpath:/META-INF/resources/environments/")
                .setCacheControl(CacheControl.maxAge(Duration.ofDays(365)).immutable());
    }

    @Bean
    OpenAPI description() {
        return new OpenAPI().info(new Info().title("Zolvan").version("1")).servers(List.of());
    }

    /**
     * Every field of our records is there in every answer; those marked nullable may be null. Without this the generated
     * types would say that each might be missing.
     */
    @Bean
    @SuppressWarnings({"rawtypes", "unchecked"}) // as the description's own types are
    OpenApiCustomizer requiredFields() {
        return api -> {
            if (api.getComponents() == null || api.getComponents().getSchemas() == null) {
                return;
            }
            for (Schema schema : api.getComponents().getSchemas().values()) {
                Map<String, Schema> properties = schema.getProperties();
                if (properties == null) {
                    continue;
                }
                List<String> required = new ArrayList<>();
                properties.forEach((name, property) -> {
                    if (!isNullable(property)) {
                        required.add(name);
                    }
                });
                schema.setRequired(required);
            }
        };
    }

    private static boolean isNullable(Schema<?> property) {
        Set<String> types = property.getTypes();
        return Boolean.TRUE.equals(property.getNullable()) || (types != null && types.contains("null"));
    }
}
