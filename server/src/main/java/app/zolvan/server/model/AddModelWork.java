package app.zolvan.server.model;

import app.zolvan.core.context.Belonging;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.job.Asking;
import app.zolvan.server.job.JobAnswer;
import app.zolvan.server.job.JobOrder;
import app.zolvan.server.job.JobProgress;
import app.zolvan.server.scheme.ContextCommands;
import java.io.IOException;
import java.util.Locale;
import java.util.Objects;
import java.util.UUID;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** Reads a file and adds its model to an open project, as part of the design or as surroundings. */
class AddModelWork extends FileWork {
    private final Belonging belonging;
    private final ModelFiles files;
    private final ContextCommands commands;

    private AddModelWork(Belonging belonging, AssetService assets, ModelFiles files, ContextCommands commands) {
        super(assets);
        this.belonging = belonging;
        this.files = files;
        this.commands = commands;
    }

    /** One kind of work for each thing that a model can be to a project. */
    @Configuration
    static class Kinds {
        @Bean
        AddModelWork addToDesign(AssetService assets, ModelFiles files, ContextCommands commands) {
            return new AddModelWork(Belonging.DESIGN, assets, files, commands);
        }

        @Bean
        AddModelWork addToSurroundings(AssetService assets, ModelFiles files, ContextCommands commands) {
            return new AddModelWork(Belonging.SURROUNDINGS, assets, files, commands);
        }
    }

    static String kind(Belonging belonging) {
        return "add-" + belonging.name().toLowerCase(Locale.ROOT);
    }

    @Override
    public String kind() {
        return kind(belonging);
    }

    @Override
    public String name() {
        return "Added model";
    }

    @Override
    public int priority() {
        return 10;
    }

    @Override
    public UUID run(JobOrder order, JobProgress progress) throws ImportException, IOException, Asking {
        UUID project = Objects.requireNonNull(order.subject());
        ModelFiles.Read read = files.read(
                order.title(),
                order.asset(),
                ModelFiles.unit(order.answer()),
                ModelFiles.upAxis(order.answer()),
                true,
                progress);
        int dot = order.title().lastIndexOf('.');
        String name = dot > 0 ? order.title().substring(0, dot) : order.title();
        commands.add(
                order.account(),
                project,
                new PlacedModels.Addition(
                        name.length() > 120 ? name.substring(0, 120) : name,
                        order.title(),
                        belonging,
                        null,
                        read.prepared(),
                        null,
                        order.job(),
                        new PlacedModels.Original(
                                order.asset(), read.arrival().up().axis(), read.lacking())));
        return project;
    }

    @Override
    public void check(JobAnswer answer) {
        ModelFiles.check(answer);
    }
}
