package app.zolvan.server;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.context.ConfigurableApplicationContext;

/** Another Zolvan beside the one that tests share: on the same database, or on one of its own. */
final class OtherServer implements AutoCloseable {
    private final ConfigurableApplicationContext context;

    OtherServer(String databaseUrl, String... more) {
        List<String> options = new ArrayList<>(List.of(
                "--server.port=0",
                "--spring.datasource.url=" + databaseUrl,
                "--spring.datasource.password=" + TestDatabase.get().password(),
                "--zolvan.sign-in.strength=4",
                "--zolvan.jobs.poll=20ms",
                "--zolvan.imports.log=target/imports.log"));
        options.addAll(Arrays.asList(more));
        context = new SpringApplicationBuilder(ZolvanApplication.class).run(options.toArray(String[]::new));
    }

    Browser browser() {
        return new Browser(context.getEnvironment().getRequiredProperty("local.server.port", Integer.class));
    }

    <T> T bean(Class<T> type) {
        return context.getBean(type);
    }

    @Override
    public void close() {
        context.close();
    }
}
