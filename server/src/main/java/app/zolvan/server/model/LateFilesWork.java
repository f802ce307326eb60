package app.zolvan.server.model;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.formats.LateFiles;
import app.zolvan.core.importing.ReadLateFiles;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.job.JobOrder;
import app.zolvan.server.job.JobProgress;
import app.zolvan.server.scheme.LateFilesCommands;
import java.io.IOException;
import java.util.ArrayList;
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
    private static final double READ = 0.9;

    private final ModelStore models;
    private final LateFilesCommands commands;
    private final ImportProcesses processes;

    LateFilesWork(AssetService assets, ModelStore models, LateFilesCommands commands, ImportProcesses processes) {
        super(assets);
        this.processes = processes;
        this.models = models;
        this.commands = commands;
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public String name() {
        return "Missing files";
    }

    @Override
    public int priority() {
        return 10;
    }

    @Override
    public UUID run(JobOrder order, JobProgress progress) throws ImportException, IOException {
        UUID project = Objects.requireNonNull(order.subject());
        progress.at(0, "Fetching the files");
        List<ModelStore.Lacking> all = models.lacking(project);
        Map<ModelStore.Lacking, LateFiles> found = new LinkedHashMap<>();
        List<UploadedFile> files = new ArrayList<>();
        try {
            files.add(UploadedFile.of(assets, order.asset()));
            List<ReadLateFiles.Lacking> lacking = new ArrayList<>();
            for (ModelStore.Lacking model : all) {
                UploadedFile original = UploadedFile.of(assets, model.original());
                files.add(original);
                lacking.add(new ReadLateFiles.Lacking(
                        original.path(), model.fileName(), model.up(), List.copyOf(model.lacking())));
            }
            List<LateFiles> came = processes
                    .run(
                            new ReadLateFiles(files.get(0).path(), order.title(), List.copyOf(lacking)),
                            (s, step) -> progress.at(s * READ, step))
                    .found();
            for (int i = 0; i < all.size(); i++) {
                if (came.get(i) != null) {
                    found.put(all.get(i), came.get(i));
                }
            }
        } finally {
            for (UploadedFile file : files) {
                file.close();
            }
        }
        if (found.isEmpty()) {
            throw LateFiles.none(models.scene(project).lacking());
        }
        progress.at(READ, "Saving");
        commands.take(order.account(), project, found);
        return project;
    }
}
