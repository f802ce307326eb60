package app.zolvan.server.model;

import app.zolvan.core.exchange.Arrival;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ModelReader.Progress;
import app.zolvan.core.exchange.UpAxis;
import app.zolvan.core.exchange.formats.Cut;
import app.zolvan.core.importing.ReadModel;
import app.zolvan.core.model.LengthUnit;
import app.zolvan.core.model.Preparation;
import app.zolvan.core.snag.Snag;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.job.Asking;
import app.zolvan.server.job.JobAnswer;
import app.zolvan.server.job.JobQuestion;
import app.zolvan.server.problem.Problem;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Reads uploaded models and makes them ready to be dressed, each in a process of its own. */
@Component
class ModelFiles {
    private final AssetService assets;
    private final ImportProcesses processes;

    ModelFiles(AssetService assets, ImportProcesses processes) {
        this.assets = assets;
        this.processes = processes;
    }

    /**
     * @param found what deserves a look
     * @param lacking what the file refers to and what did not come along
     * @param cut   how finely surfaces were cut, where they are kept
     */
    record Read(
            Arrival arrival,
            Preparation prepared,
            List<Snag> found,
            @Nullable Cut cut,
            List<String> lacking) {}

    /**
     * @param unit     of the file's lengths, where the designer has said it
     * @param up       which of its axes points up, likewise
     * @param mayAsk   whether the designer is asked where the file leaves unit or up axis open
     * @param progress told up to 0.9; saving is the rest
     */
    Read read(
            String name,
            String sha256,
            @Nullable LengthUnit unit,
            @Nullable UpAxis up,
            boolean mayAsk,
            Progress progress)
            throws ImportException, IOException, Asking {
        progress.at(0, "Fetching the file");
        try (UploadedFile file = UploadedFile.of(assets, sha256)) {
            ReadModel.Result read = processes.run(new ReadModel(file.path(), name, mayAsk, unit, up), progress);
            if (read.prepared() == null) {
                throw new Asking(question(read.arrival()));
            }
            progress.at(ReadModel.SHARE, "Saving");
            return new Read(read.arrival(), read.prepared(), read.found(), read.cut(), read.lacking());
        }
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
