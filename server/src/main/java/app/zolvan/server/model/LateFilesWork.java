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
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.UUID;
import org.springframework.stereotype.Component;

/** The job that takes files which a project's models refer to and which did not come with them. */
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
        List<ModelStore.Lacking> all = models.lacking(project);
        Map<ModelStore.Lacking, LateFiles> found = new LinkedHashMap<>();
        UploadedFile.with(assets, order.asset(), late -> {
            FileSet.Companions files = ZipArchive.looksLikeZip(late)
                    ? ZipArchive.open(late, ImportLimits.STANDARD)
                    : FileSet.Companions.of(order.title(), late);
            double share = READ / Math.max(1, all.size());
            for (int i = 0; i < all.size(); i++) {
                ModelStore.Lacking model = all.get(i);
                double from = 2 * share * i;
                UploadedFile.with(assets, model.original(), original -> {
                    LateFiles came = LateFiles.of(
                            model.fileName(),
                            original,
                            files,
                            reading(model, progress, from, share),
                            reading(model, progress, from + share, share));
                    if (!came.lacking().containsAll(model.lacking())) {
                        found.put(model, came);
                    }
                });
            }
        });
        if (found.isEmpty()) {
            throw LateFiles.none(models.scene(project).lacking());
        }
        progress.at(2 * READ, "Saving");
        commands.take(order.account(), project, found);
        return project;
    }

    /** Unit and axis don't matter for looks; what is known of them is told so that nothing is asked. */
    private static Reading reading(ModelStore.Lacking model, Progress progress, double from, double share) {
        return new Reading(ImportLimits.STANDARD, (s, step) -> progress.at(from + s * share, step), null, model.up());
    }
}
