package app.zolvan.server.model;

import app.zolvan.core.exchange.Arrival;
import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.ImportException;
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
import app.zolvan.server.job.JobQuestion;
import app.zolvan.server.problem.Problem;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Reads uploaded models and makes them ready to be dressed. */
@Component
class ModelFiles {
    /** The share of the work that reading is. */
    static final double READ = 0.5;

    private static final double PREPARE = 0.2;
    private static final double INSPECT = 0.2;

    private final AssetService assets;

    ModelFiles(AssetService assets) {
        this.assets = assets;
    }

    /**
     * @param found what deserves a look
     * @param lacking what the file refers to and what did not come along
     * @param cut   how finely surfaces were cut, where they are kept
     */
    record Read(
            Arrival arrival,
            Preparation prepared,
            List<Finding> found,
            @Nullable Cut cut,
            List<String> lacking) {}

    /**
     * @param mayAsk whether the designer is asked where the file leaves unit or up axis open
     * @param progress told up to 0.9; saving is the rest
     */
    Read read(String file, String sha256, Reading reading, boolean mayAsk, Progress progress)
            throws ImportException, IOException, Asking {
        progress.at(0, "Fetching the file");
        Read[] out = new Read[1];
        UploadedFile.with(assets, sha256, bytes -> {
            Arrival arrival = ModelFormats.read(file, bytes, FileSet.Companions.NONE, reading);
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
            out[0] = new Read(
                    arrival, prepared, found, Cut.of(bytes, Reading.standard()).orElse(null), reading.lacking());
        });
        return Objects.requireNonNull(out[0]);
    }

    /** @throws Problem when the answer is none to what a file leaves open */
    static void check(JobAnswer answer) {
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

    static @Nullable LengthUnit unit(@Nullable JobAnswer answer) {
        return answer == null || answer.unit() == null ? null : LengthUnit.ofSymbol(answer.unit());
    }

    static @Nullable UpAxis upAxis(@Nullable JobAnswer answer) {
        return answer == null || answer.upAxis() == null ? null : UpAxis.valueOf(answer.upAxis());
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
