package app.zolvan.server.model;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.model.LengthUnit;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.job.Asking;
import app.zolvan.server.job.JobOrder;
import app.zolvan.server.job.JobProgress;
import java.io.IOException;
import java.util.Objects;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Reads a newer file of a project's model and finds out which part is which; the model stays as it is. */
@Component
public class UpdateWork extends FileWork {
    static final String KIND = "update";

    private final ModelStore store;
    private final ModelFiles files;
    private final ModelUpdates updates;

    UpdateWork(AssetService assets, ModelStore store, ModelFiles files, ModelUpdates updates) {
        super(assets);
        this.store = store;
        this.files = files;
        this.updates = updates;
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public String name() {
        return "Newer file";
    }

    @Override
    public int priority() {
        return 10;
    }

    /** Where the newer file leaves unit or up axis open, those that the first one had are taken. */
    @Override
    public UUID run(JobOrder order, JobProgress progress) throws ImportException, IOException, Asking {
        UUID project = Objects.requireNonNull(order.subject());
        ModelFiles.Read read;
        try {
            read = files.read(order.title(), order.asset(), null, null, true, progress);
        } catch (Asking e) {
            LengthUnit unit = unitOf(store.scene(project).origin().unit());
            read = files.read(order.title(), order.asset(), unit, store.upAxis(project), false, progress);
        }
        updates.propose(project, order.title(), order.asset(), read);
        return project;
    }

    private static @Nullable LengthUnit unitOf(String label) {
        try {
            return LengthUnit.ofSymbol(label);
        } catch (IllegalArgumentException e) {
            return null;
        }
    }
}
