package app.zolvan.bench;

import app.zolvan.core.context.Resting;
import app.zolvan.core.context.Resting.Body;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.TriangleSoup;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.Preparation;
import app.zolvan.core.prepare.Coverage;
import app.zolvan.core.prepare.EasedEdges;
import app.zolvan.core.prepare.ModelInspection;
import app.zolvan.core.prepare.PartMatching;
import app.zolvan.core.prepare.PlainColours;
import app.zolvan.core.prepare.Role;
import app.zolvan.core.prepare.Roles;
import app.zolvan.core.prepare.Similar;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.function.Supplier;

/**
 * How long the Prepare step's computations take on a million triangles in 5,000 parts: {@code java -Xmx3g -cp … PrepareTimes
 * [ROUNDS]}. One line each, the median of the rounds in seconds.
 */
public final class PrepareTimes {
    private static final int TRIANGLES = 1_000_000;
    private static final int PARTS = 5_000;
    private static final int BOARDS = 500;

    private PrepareTimes() {}

    public static void main(String[] arguments) {
        int rounds = arguments.length > 0 ? Integer.parseInt(arguments[0]) : 3;
        Model model = LargeFiles.model(TRIANGLES, PARTS);
        Preparation prepared = Preparation.of(model, s -> {});
        long triangles = model.meshes().stream().mapToLong(Mesh::triangleCount).sum();
        System.out.printf(Locale.ROOT, "%,d triangles in %,d parts%n", triangles, PARTS);
        print(
                "preparation",
                rounds,
                () -> Preparation.of(model, s -> {}).measures().size());
        print("inspection", rounds, () -> ModelInspection.of(prepared, s -> {}).size());
        List<Role> none = Arrays.asList(new Role[PARTS]);
        print("roles", rounds, () -> Roles.propose(prepared).size());
        print("similar parts", rounds, () -> Similar.to(model, none, 7).size());
        print("sets", rounds, () -> Coverage.of(model).size());
        print("colours by shape", rounds, () -> PlainColours.byShape(model).size());
        PartMatching.Version version = new PartMatching.Version(
                model, model.parts().stream().map(Model.Part::name).toList());
        print("newer file", rounds, () -> PartMatching.of(version, version).size());
        List<Body> still = new ArrayList<>();
        model.parts().forEach(p -> still.add(new Body(model.meshOf(p), p.local())));
        Body moving = new Body(model.meshes().get(0), Transform.translation(5.3, 9, 5.3));
        print("setting down", rounds, () -> Resting.drop(List.of(moving), still).isPresent() ? 1 : 0);
        Mesh board = board();
        print("easing 500 boards", rounds, () -> {
            int eased = 0;
            for (int i = 0; i < BOARDS; i++) {
                eased += EasedEdges.of(board, 0.002).isPresent() ? 1 : 0;
            }
            return eased;
        });
    }

    private static Mesh board() {
        Vec3 x = new Vec3(2, 0, 0);
        Vec3 y = new Vec3(0, 0.03, 0);
        Vec3 z = new Vec3(0, 0, 0.12);
        Vec3 o = Vec3.ZERO;
        return new TriangleSoup()
                .quad(o, y, x.plus(y), x)
                .quad(z, x.plus(z), x.plus(y).plus(z), y.plus(z))
                .quad(o, z, z.plus(y), y)
                .quad(x, x.plus(y), x.plus(y).plus(z), x.plus(z))
                .quad(y, y.plus(z), x.plus(y).plus(z), x.plus(y))
                .quad(o, x, x.plus(z), z)
                .toMesh(0.5);
    }

    private static void print(String what, int rounds, Supplier<Integer> work) {
        double[] seconds = new double[rounds];
        int found = 0;
        for (int i = 0; i < rounds; i++) {
            long start = System.nanoTime();
            found = work.get();
            seconds[i] = (System.nanoTime() - start) / 1e9;
        }
        Arrays.sort(seconds);
        System.out.printf(Locale.ROOT, "%-18s %7.3f s   (%,d)%n", what, seconds[rounds / 2], found);
    }
}
