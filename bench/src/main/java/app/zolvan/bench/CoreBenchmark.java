package app.zolvan.bench;

import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.gltf.GltfReader;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.MeshFaces;
import app.zolvan.core.geometry.Topology;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.mapping.BoxProjection;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.Preparation;
import app.zolvan.core.model.Repeats;
import app.zolvan.demo.DemoFiles;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** What an import spends its time on: reading, preparing, and the box projection of a million triangles. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
@Fork(1)
public class CoreBenchmark {
    private ByteBuffer lantern;
    private Model read;
    private Mesh million;
    private Model manyParts;

    @Setup
    public void make() throws IOException, ImportException {
        Path folder = Files.createTempDirectory("zolvan-bench");
        DemoFiles.write(folder);
        lantern = ByteBuffer.wrap(Files.readAllBytes(folder.resolve("storm-lantern.glb")));
        read = readLantern();
        million = wavySheet(708);
        manyParts = LargeFiles.model(1_000_000, 5000);
    }

    /** A sheet of 2 · (n − 1)² triangles, about a million for n = 708, its normals pointing every way. */
    private static Mesh wavySheet(int n) {
        float[] p = new float[3 * n * n];
        float[] normals = new float[3 * n * n];
        for (int i = 0; i < n * n; i++) {
            int x = i % n;
            int y = i / n;
            p[3 * i] = x * 0.01f;
            p[3 * i + 1] = (float) (0.5 * Math.sin(x * 0.05) * Math.cos(y * 0.05));
            p[3 * i + 2] = y * 0.01f;
            normals[3 * i + 1] = 1;
        }
        int[] index = new int[6 * (n - 1) * (n - 1)];
        int at = 0;
        for (int y = 0; y + 1 < n; y++) {
            for (int x = 0; x + 1 < n; x++) {
                int a = y * n + x;
                for (int v : new int[] {a, a + n, a + 1, a + 1, a + n, a + n + 1}) {
                    index[at++] = v;
                }
            }
        }
        return new Mesh(p, normals, null, null, index, new int[] {0, index.length / 3}, null);
    }

    @Benchmark
    public Model readLantern() throws ImportException {
        return new GltfReader()
                .read(FileSet.of("model.glb", lantern), Reading.standard())
                .model();
    }

    @Benchmark
    public Preparation prepareLantern() {
        return Preparation.of(read, share -> {});
    }

    @Benchmark
    public Mesh boxProjectionOfAMillionTriangles() {
        return BoxProjection.apply(million, new Vec3(1, 1, 1));
    }

    /** Faces of all parts, and which parts are rigid copies of others; meant to stay under 3 s on one core. */
    @Benchmark
    public Model facesAndRepeatsOfAMillionTriangles() {
        for (Mesh mesh : manyParts.meshes()) {
            MeshFaces.of(Preparation.withFaces(mesh, Topology.of(mesh)));
        }
        return Repeats.joined(manyParts);
    }

    @Benchmark
    public Topology topologyOfAMillionTriangles() {
        return Topology.of(million);
    }
}
