package app.zolvan.server.config;

import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.media.Schema;
import io.swagger.v3.oas.models.servers.Server;
import java.lang.reflect.RecordComponent;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springframework.beans.factory.annotation.AnnotatedBeanDefinition;
import org.springframework.beans.factory.config.BeanDefinition;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.ClassPathScanningCandidateComponentProvider;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.type.filter.AssignableTypeFilter;
import org.springframework.http.CacheControl;
import org.springframework.util.ClassUtils;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistry;
import org.springframework.web.servlet.config.annotation.ViewControllerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** The front end's files and addresses, and the API's description. */
@Configuration
class WebConfiguration implements WebMvcConfigurer {

    /** Addresses that the front end shows by itself. */
    @Override
    public void addViewControllers(ViewControllerRegistry registry) {
        for (String path : List.of("/", "/sign-in", "/projects", "/projects/{id}")) {
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
        return new OpenAPI().info(new Info().title("Zolvan").version("1")).servers(List.of(new Server().url("/")));
    }

    /**
     * Every field of our records is there in every answer; those marked nullable may be null. Without this the generated
     * types would say that each might be missing.
     */
    @Bean
    @SuppressWarnings({"rawtypes", "unchecked"}) // as the description's own types are
    OpenApiCustomizer requiredFields() {
        Map<String, Set<String>> nullable = nullableFields();
        return api -> {
            if (api.getComponents() == null || api.getComponents().getSchemas() == null) {
                return;
            }
            api.getComponents().getSchemas().forEach((name, schema) -> {
                Map<String, Schema> properties = schema.getProperties();
                if (properties != null) {
                    schema.setRequired(new ArrayList<>(properties.keySet()));
                    for (String field : nullable.getOrDefault(name, Set.of())) {
                        properties.computeIfPresent(field, (f, property) -> orNull(property));
                    }
                }
            });
        };
    }

    private static Schema<?> orNull(Schema<?> property) {
        if (property.get$ref() != null) {
            Schema<Object> none = new Schema<>();
            none.addType("null");
            return new Schema<>().oneOf(List.of(property, none));
        }
        property.addType("null");
        return property;
    }

    /** For each of our records, by its simple name, the components marked nullable. */
    private static Map<String, Set<String>> nullableFields() {
        ClassPathScanningCandidateComponentProvider scanner = new ClassPathScanningCandidateComponentProvider(false) {
            @Override
            protected boolean isCandidateComponent(AnnotatedBeanDefinition bean) {
                return true;
            }
        };
        scanner.addIncludeFilter(new AssignableTypeFilter(Record.class));
        Map<String, Set<String>> nullable = new HashMap<>();
        for (BeanDefinition found : scanner.findCandidateComponents("app.zolvan.server")) {
            Class<?> type =
                    ClassUtils.resolveClassName(found.getBeanClassName(), WebConfiguration.class.getClassLoader());
            Set<String> fields = Arrays.stream(type.getRecordComponents())
                    .filter(c -> c.getAnnotatedType().isAnnotationPresent(Nullable.class))
                    .map(RecordComponent::getName)
                    .collect(Collectors.toSet());
            nullable.put(type.getSimpleName(), fields);
        }
        return nullable;
    }
}
