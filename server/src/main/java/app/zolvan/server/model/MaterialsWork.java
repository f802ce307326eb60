package app.zolvan.server.model;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.importing.ReadMaterials;
import app.zolvan.core.model.Model;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.job.JobOrder;
import app.zolvan.server.job.JobProgress;
import java.io.IOException;
import java.util.Objects;
import java.util.UUID;
import org.springframework.stereotype.Component;

/** The job that takes the materials out of a file, without its shapes, into an open project. */
@Component
class MaterialsWork extends FileWork {
    static final String KIND = "materials";
    private static final double READ = 0.9;

    private final ModelStore store;
    private final ImportProcesses processes;

    MaterialsWork(AssetService assets, ModelStore store, ImportProcesses processes) {
        super(assets);
        this.processes = processes;
        this.store = store;
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public String name() {
        return "Materials from a file";
    }

    @Override
    public int priority() {
        return 10;
    }

    @Override
    public UUID run(JobOrder order, JobProgress progress) throws ImportException, IOException {
        UUID project = Objects.requireNonNull(order.subject());
        progress.at(0, "Fetching the file");
        try (UploadedFile file = UploadedFile.of(assets, order.asset())) {
            Model model = processes.run(
                    new ReadMaterials(file.path(), order.title()), (s, step) -> progress.at(s * READ, step));
            progress.at(READ, "Saving");
            store.addMaterials(project, order.account(), order.job(), model);
        }
        return project;
    }
}
