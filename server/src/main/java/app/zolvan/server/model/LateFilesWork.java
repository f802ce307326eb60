package app.zolvan.server.model;

import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ImportLimits;
import app.zolvan.core.exchange.ModelReader.Progress;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.archive.ZipArchive;
import app.zolvan.core.exchange.formats.LateFiles;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.job.Asking;
import app.zolvan.server.job.JobOrder;
import app.zolvan.server.scheme.LateFilesCommands;
import java.io.IOException;
import java.util.Objects;
import java.util.UUID;
import org.springframework.stereotype.Component;

/** The job that takes files which a project's model refers to and which did not come with it. */
@Component
class LateFilesWork extends FileWork {
    static final String KIND = "late-files";
    private static final double READ = 0.45;

    private final ModelStore models;
    private final LateFilesCommands commands;

    LateFilesWork(AssetService assets, ModelStore models, LateFilesCommands commands) {
        super(assets);
        this.models = models;
        this.commands = commands;
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public UUID run(JobOrder order, Progress progress) throws ImportException, IOException, Asking {
        UUID project = Objects.requireNonNull(order.subject());
        progress.at(0, "Fetching the files");
        UploadedFile.with(
                assets,
                models.original(project),
                original -> UploadedFile.with(assets, order.asset(), late -> {
                    FileSet.Companions files = ZipArchive.looksLikeZip(late)
                            ? ZipArchive.open(late, ImportLimits.STANDARD)
                            : FileSet.Companions.of(order.title(), late);
                    LateFiles found = LateFiles.of(
                            models.scene(project).fileName(),
                            original,
                            files,
                            reading(project, progress, 0),
                            reading(project, progress, READ));
                    progress.at(2 * READ, "Saving");
                    commands.take(order.account(), project, found);
                }));
        return project;
    }

    /** Unit and axis don't matter for looks; what is known of them is told so that nothing is asked. */
    private Reading reading(UUID project, Progress progress, double from) {
        return new Reading(
                ImportLimits.STANDARD, (s, step) -> progress.at(from + s * READ, step), null, models.upAxis(project));
    }
}
