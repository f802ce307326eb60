package app.zolvan.server.model;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.MeshCodec;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.Objects;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** Checks a stored model that came from a file: every number in it means something, and every shape is one. */
final class StoredModelCheck {
    private StoredModelCheck() {}

    /**
     * @param project the project that it is for
     * @param bytes   of an asset of the project; null for none
     */
    static void require(ModelRows rows, UUID project, Function<String, byte @Nullable []> bytes)
            throws ImportException {
        try {
            check(rows, project, bytes);
        } catch (IllegalArgumentException | NullPointerException | IndexOutOfBoundsException e) {
            throw damaged("something in it is missing");
        }
    }

    private static void check(ModelRows rows, UUID project, Function<String, byte @Nullable []> bytes)
            throws ImportException {
        boolean own = rows.model().projectId().equals(project)
                && Stream.of(
                                rows.placed().stream().map(ModelMapper.PlacedRow::projectId),
                                rows.groups().stream().map(ModelMapper.GroupRow::projectId),
                                rows.sets().stream().map(ModelMapper.SetRow::projectId),
                                rows.parts().stream().map(ModelMapper.PartRow::projectId))
                        .flatMap(s -> s)
                        .allMatch(project::equals);
        if (!own || rows.placed().isEmpty() || rows.parts().isEmpty()) {
            throw damaged("it has no parts");
        }
        numbered(rows);
        Map<String, Integer> spans = new HashMap<>();
        for (ModelMapper.PartRow p : rows.parts()) {
            for (String mesh : new String[] {p.mesh(), p.plainMesh(), p.arrivedMesh()}) {
                if (mesh != null && !spans.containsKey(mesh)) {
                    spans.put(mesh, spanCount(bytes.apply(mesh)));
                }
            }
            boolean fits = spans.get(p.mesh()) == p.sets().length
                    && p.homes().length == p.sets().length
                    && Arrays.stream(p.sets())
                            .allMatch(s -> s >= 0 && s < rows.sets().size())
                    && p.groupIdx() < rows.groups().size()
                    && transform(p.world())
                    && transform(p.local())
                    && p.size().length == 3;
            if (!fits) {
                throw damaged("part " + p.name() + " contradicts itself");
            }
        }
        for (ModelMapper.GroupRow g : rows.groups()) {
            if (g.parent() >= g.idx() || !transform(g.local())) {
                throw damaged("group " + g.name() + " contradicts itself");
            }
        }
    }

    private static void numbered(ModelRows rows) throws ImportException {
        for (int i = 0; i < rows.parts().size(); i++) {
            require(rows.parts().get(i).idx() == i, "parts");
        }
        for (int i = 0; i < rows.groups().size(); i++) {
            require(rows.groups().get(i).idx() == i, "groups");
        }
        for (int i = 0; i < rows.sets().size(); i++) {
            require(rows.sets().get(i).idx() == i, "sets");
        }
        for (int i = 0; i < rows.placed().size(); i++) {
            ModelMapper.PlacedRow m = rows.placed().get(i);
            require(m.idx() == i && m.groupIdx() < rows.groups().size(), "models");
        }
    }

    private static void require(boolean holds, String things) throws ImportException {
        if (!holds) {
            throw damaged("its " + things + " are not numbered through");
        }
    }

    private static boolean transform(double[] columns) {
        return columns.length >= 12 && Arrays.stream(columns).allMatch(Double::isFinite);
    }

    private static int spanCount(byte @Nullable [] mesh) throws ImportException {
        try {
            Mesh decoded = MeshCodec.decode(Objects.requireNonNull(mesh));
            int vertices = decoded.vertexCount();
            for (int i : decoded.indices()) {
                if (i < 0 || i >= vertices) {
                    throw damaged("a shape in it is damaged");
                }
            }
            return decoded.spanCount();
        } catch (RuntimeException e) {
            throw damaged("a shape in it is missing or damaged");
        }
    }

    private static ImportException damaged(String why) {
        return new ImportException(
                "damaged", "The model in this project file can’t be used: " + why + ". Save it from Zolvan once more.");
    }
}
