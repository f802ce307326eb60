package app.zolvan.server.model;

import app.zolvan.core.exchange.Arrival;
import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ImportLimits;
import app.zolvan.core.exchange.ModelReader.Progress;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.UpAxis;
import app.zolvan.core.exchange.formats.Cut;
import app.zolvan.core.exchange.formats.ModelFormats;
import app.zolvan.core.model.LengthUnit;
import app.zolvan.core.model.Preparation;
import app.zolvan.core.model.Repeats;
import app.zolvan.core.prepare.Finding;
import app.zolvan.core.prepare.ModelInspection;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.job.Asking;
import app.zolvan.server.job.JobAnswer;
import app.zolvan.server.job.JobOrder;
import app.zolvan.server.job.JobQuestion;
import app.zolvan.server.job.JobWork;
import app.zolvan.server.problem.Problem;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** The import job: reads an uploaded file and makes a project of it. */
@Component
public class ImportWork implements JobWork {
    static final String KIND = "import";
    private static final double READ = 0.5;
    private static final double PREPARE = 0.2;
    private static final double INSPECT = 0.2;

    private final AssetService assets;
    private final ModelStore store;

    ImportWork(AssetService assets, ModelStore store) {
        this.assets = assets;
        this.store = store;
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public UUID run(JobOrder order, Progress progress) throws ImportException, IOException, Asking {
        int dot = order.title().lastIndexOf('.');
        String name = dot > 0 ? order.title().substring(0, dot) : order.title();
        JobAnswer answer = order.answer();
        UpAxis up = order.subject() == null ? upAxis(answer) : store.upAxis(order.subject());
        Reading reading =
                new Reading(ImportLimits.STANDARD, (s, step) -> progress.at(s * READ, step), unit(answer), up);
        UUID project = order.subject() == null ? order.job() : order.subject();
        var origin = new ModelStore.Origin(
                project, order.account(), name, "", null, order.title(), order.asset(), order.subject() != null);
        return run(origin, reading, !origin.again(), progress);
    }

    @Override
    public void check(JobAnswer answer) {
        try {
            unit(answer);
        } catch (IllegalArgumentException e) {
            throw Problem.ofField("unit", "“" + answer.unit() + "” is no unit of length that Zolvan knows.");
        }
        try {
            upAxis(answer);
        } catch (IllegalArgumentException e) {
            throw Problem.ofField("upAxis", "The axis that points up is X, Y or Z.");
        }
    }

    private static @Nullable LengthUnit unit(@Nullable JobAnswer answer) {
        return answer == null || answer.unit() == null ? null : LengthUnit.ofSymbol(answer.unit());
    }

    private static @Nullable UpAxis upAxis(@Nullable JobAnswer answer) {
        return answer == null || answer.upAxis() == null ? null : UpAxis.valueOf(answer.upAxis());
    }

    @Override
    public void dropped() {
        assets.deleteUnused();
    }

    /** Makes a project of a file on this machine, now; for the demo. */
    public void importFile(UUID project, UUID account, String name, String client, LengthUnit unit, Path file)
            throws ImportException, IOException {
        String sha256 = assets.store(Files.readAllBytes(file), AssetService.BINARY);
        String fileName = file.getFileName().toString();
        try {
            run(
                    new ModelStore.Origin(project, account, name, client, unit, fileName, sha256, false),
                    Reading.standard(),
                    false,
                    Progress.NONE);
        } catch (Asking e) {
            throw new IllegalStateException(e);
        }
    }

    /** Reads the origin's file and makes the project; does nothing when an earlier run has made it already. */
    private UUID run(ModelStore.Origin origin, Reading reading, boolean mayAsk, Progress progress)
            throws ImportException, IOException, Asking {
        if (!origin.again() && store.exists(origin.project())) {
            return origin.project();
        }
        progress.at(0, "Fetching the file");
        UploadedFile.with(assets, origin.sha256(), bytes -> {
            Arrival arrival = ModelFormats.read(origin.file(), bytes, FileSet.Companions.NONE, reading);
            if (mayAsk && arrival.isAsking()) {
                throw new Asking(question(arrival));
            }
            progress.at(READ, "Looking for repeats");
            Preparation prepared = Preparation.of(
                    Repeats.joined(arrival.model()),
                    s -> progress.at(READ + s * PREPARE, "Laying coordinates and measuring"));
            List<Finding> found = ModelInspection.of(
                    prepared, s -> progress.at(READ + PREPARE + s * INSPECT, "Looking for what needs attention"));
            progress.at(READ + PREPARE + INSPECT, "Saving");
            Cut cut = Cut.of(bytes, Reading.standard()).orElse(null);
            if (origin.again()) {
                store.cutAgain(origin, prepared, found, cut);
                assets.deleteUnused(); // the triangles before
            } else {
                store.create(origin, arrival, prepared, found, cut);
            }
        });
        return origin.project();
    }

    private static JobQuestion question(Arrival arrival) {
        List<JobQuestion.UnitChoice> units = arrival.unit().candidates().stream()
                .map(c -> new JobQuestion.UnitChoice(c.unit().symbol(), c.longestSide()))
                .toList();
        List<String> axes = new ArrayList<>();
        if (!arrival.up().certain()) {
            axes.add(arrival.up().axis().name());
            for (UpAxis axis : UpAxis.values()) {
                if (axis != arrival.up().axis()) {
                    axes.add(axis.name());
                }
            }
        }
        return new JobQuestion(
                units, arrival.unit().reason(), axes, arrival.up().reason());
    }
}
