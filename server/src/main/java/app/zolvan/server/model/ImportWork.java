package app.zolvan.server.model;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ImportLimits;
import app.zolvan.core.exchange.ModelReader;
import app.zolvan.core.exchange.ModelReader.Progress;
import app.zolvan.core.exchange.gltf.GltfReader;
import app.zolvan.core.model.LengthUnit;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.Preparation;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.job.JobWork;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Component;

/** The import job: reads an uploaded file and makes a project of it. */
@Component
public class ImportWork implements JobWork {
    static final String KIND = "import";
    private static final double READ = 0.6;
    private static final double PREPARE = 0.3;

    private final AssetService assets;
    private final ModelStore store;
    private final List<ModelReader> readers = List.of(new GltfReader());

    ImportWork(AssetService assets, ModelStore store) {
        this.assets = assets;
        this.store = store;
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public UUID run(UUID job, UUID account, String title, String asset, Progress progress)
            throws ImportException, IOException {
        int dot = title.lastIndexOf('.');
        String name = dot > 0 ? title.substring(0, dot) : title;
        return run(new ModelStore.Origin(job, account, name, "", LengthUnit.MM, title, asset), progress);
    }

    @Override
    public void dropped() {
        assets.deleteUnused();
    }

    /** Makes a project of a file on this machine, now; for the demo. */
    public void importFile(UUID project, UUID account, String name, String client, LengthUnit unit, Path file)
            throws ImportException, IOException {
        String sha256 = assets.store(Files.readAllBytes(file), "application/octet-stream");
        String fileName = file.getFileName().toString();
        run(new ModelStore.Origin(project, account, name, client, unit, fileName, sha256), Progress.NONE);
    }

    /** Reads the origin's file and makes the project; does nothing when an earlier run has made it already. */
    UUID run(ModelStore.Origin origin, Progress progress) throws ImportException, IOException {
        if (store.exists(origin.project())) {
            return origin.project();
        }
        Path file = Files.createTempFile("zolvan-import", ".bin");
        try {
            progress.at(0, "Fetching the file");
            try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(file))) {
                assets.copy(origin.sha256(), out);
            }
            try (FileChannel channel = FileChannel.open(file, StandardOpenOption.READ)) {
                ByteBuffer bytes = channel.map(FileChannel.MapMode.READ_ONLY, 0, channel.size());
                Model model =
                        reader(bytes).read(bytes, ImportLimits.STANDARD, (s, step) -> progress.at(s * READ, step));
                Preparation prepared =
                        Preparation.of(model, s -> progress.at(READ + s * PREPARE, "Laying coordinates and measuring"));
                progress.at(READ + PREPARE, "Saving");
                store.create(origin, prepared);
            }
        } finally {
            Files.deleteIfExists(file);
        }
        return origin.project();
    }

    private ModelReader reader(ByteBuffer bytes) throws ImportException {
        for (ModelReader reader : readers) {
            if (reader.recognises(bytes)) {
                return reader;
            }
        }
        throw new ImportException(
                "wrong-type",
                "This is not a kind of model that Zolvan reads yet. Choose a glTF 2.0 file (.glb, or .gltf with"
                        + " everything embedded).");
    }
}
