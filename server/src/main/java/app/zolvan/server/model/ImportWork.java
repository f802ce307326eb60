package app.zolvan.server.model;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ModelReader.Progress;
import app.zolvan.core.exchange.UpAxis;
import app.zolvan.core.model.LengthUnit;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.job.Asking;
import app.zolvan.server.job.JobAnswer;
import app.zolvan.server.job.JobOrder;
import app.zolvan.server.job.JobProgress;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** The import job: reads an uploaded file and makes a project of it. */
@Component
public class ImportWork extends FileWork {
    static final String KIND = "import";

    private final ModelStore store;
    private final ModelFiles files;

    ImportWork(AssetService assets, ModelStore store, ModelFiles files) {
        super(assets);
        this.store = store;
        this.files = files;
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public String name() {
        return "Import";
    }

    @Override
    public int priority() {
        return 10;
    }

    @Override
    public UUID run(JobOrder order, JobProgress progress) throws ImportException, IOException, Asking {
        int dot = order.title().lastIndexOf('.');
        String name = dot > 0 ? order.title().substring(0, dot) : order.title();
        JobAnswer answer = order.answer();
        UpAxis up = order.subject() == null ? ModelFiles.upAxis(answer) : store.upAxis(order.subject());
        UUID project = order.subject() == null ? order.job() : order.subject();
        var origin = new ModelStore.Origin(
                project, order.account(), name, "", null, order.title(), order.asset(), order.subject() != null);
        return run(origin, ModelFiles.unit(answer), up, !origin.again(), progress);
    }

    @Override
    public void check(JobAnswer answer) {
        ModelFiles.check(answer);
    }

    /** Makes a project of a file on this machine, now; for the demo. */
    public void importFile(UUID project, UUID account, String name, String client, LengthUnit unit, Path file)
            throws ImportException, IOException {
        String sha256 = assets.store(Files.readAllBytes(file), AssetService.BINARY);
        String fileName = file.getFileName().toString();
        try {
            run(
                    new ModelStore.Origin(project, account, name, client, unit, fileName, sha256, false),
                    null,
                    null,
                    false,
                    Progress.NONE);
        } catch (Asking e) {
            throw new IllegalStateException(e);
        }
    }

    /** Reads the origin's file and makes the project; does nothing when an earlier run has made it already. */
    private UUID run(
            ModelStore.Origin origin, @Nullable LengthUnit unit, @Nullable UpAxis up, boolean mayAsk, Progress progress)
            throws ImportException, IOException, Asking {
        if (!origin.again() && store.exists(origin.project())) {
            return origin.project();
        }
        ModelFiles.Read read = files.read(origin.file(), origin.sha256(), unit, up, mayAsk, progress);
        if (origin.again()) {
            store.cutAgain(origin, read.prepared(), read.found(), read.cut());
        } else {
            store.create(origin, read);
        }
        return origin.project();
    }
}
