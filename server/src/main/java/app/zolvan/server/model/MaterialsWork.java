package app.zolvan.server.model;

import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ImportLimits;
import app.zolvan.core.exchange.ModelReader.Progress;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.formats.MaterialFiles;
import app.zolvan.core.model.Model;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.job.Asking;
import app.zolvan.server.job.JobOrder;
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

    MaterialsWork(AssetService assets, ModelStore store) {
        super(assets);
        this.store = store;
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public UUID run(JobOrder order, Progress progress) throws ImportException, IOException, Asking {
        UUID project = Objects.requireNonNull(order.subject());
        progress.at(0, "Fetching the file");
        Reading reading = new Reading(ImportLimits.STANDARD, (s, step) -> progress.at(s * READ, step), null, null);
        UploadedFile.with(assets, order.asset(), bytes -> {
            Model model = MaterialFiles.read(order.title(), bytes, FileSet.Companions.NONE, reading);
            progress.at(READ, "Saving");
            store.addMaterials(project, order.account(), order.job(), model);
        });
        return project;
    }
}
