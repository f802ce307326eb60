package app.zolvan.core.model;

import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import java.io.Serializable;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * A design model as it arrived: groups that hold groups and parts, parts that show a mesh, and the source materials the
 * file named. Metres, right-handed, Y up. Immutable.
 *
 * <p>A group's parent always stands before it in {@link #groups()}. Several parts may show one mesh.
 *
 * @param notes what the file held that Zolvan does not use, as sentences
 */
public record Model(
        List<Group> groups,
        List<Part> parts,
        List<Mesh> meshes,
        List<SourceMaterial> sources,
        Map<String, SourceImage> images,
        List<String> notes)
        implements Serializable {
    /** Stands for "none" wherever an index is expected. */
    public static final int NONE = -1;

    public Model {
        groups = List.copyOf(groups);
        parts = List.copyOf(parts);
        meshes = List.copyOf(meshes);
        sources = List.copyOf(sources);
        images = Map.copyOf(images);
        notes = List.copyOf(notes);
    }

    /** The transform from a group's space to the world; the identity for {@link #NONE}. */
    public Transform groupToWorld(int group) {
        Transform t = Transform.IDENTITY;
        for (int g = group; g != NONE; g = groups.get(g).parent()) {
            t = groups.get(g).local().after(t);
        }
        return t;
    }

    public Transform partToWorld(Part part) {
        return groupToWorld(part.group()).after(part.local());
    }

    public Mesh meshOf(Part part) {
        return meshes.get(part.mesh());
    }

    public Box3 boundsOf(Part part) {
        return meshOf(part).bounds(partToWorld(part));
    }

    public Box3 bounds() {
        Box3 box = Box3.EMPTY;
        for (Part p : parts) {
            box = box.with(boundsOf(p));
        }
        return box;
    }

    /**
     * The matching sets: for each source material in use, the regions of parts that arrived with it. Regions without a
     * source material form one last set.
     */
    public List<MatchingSet> matchingSets() {
        Map<Integer, List<Region>> bySource = new TreeMap<>();
        for (int p = 0; p < parts.size(); p++) {
            List<Integer> spans = parts.get(p).sourceOfSpan();
            for (int s = 0; s < spans.size(); s++) {
                int source = spans.get(s) == NONE ? Integer.MAX_VALUE : spans.get(s);
                bySource.computeIfAbsent(source, k -> new ArrayList<>()).add(new Region(p, s));
            }
        }
        List<MatchingSet> sets = new ArrayList<>();
        bySource.forEach((source, regions) -> sets.add(new MatchingSet(
                source == Integer.MAX_VALUE ? NONE : source,
                source == Integer.MAX_VALUE
                        ? "No source material"
                        : sources.get(source).name(),
                List.copyOf(regions))));
        return sets;
    }

    /** @param parent index of the group that holds this one, or {@link #NONE} */
    public record Group(int parent, String name, Transform local) implements Serializable {}

    /**
     * @param group        index of the group that holds the part, or {@link #NONE}
     * @param mesh         index of its mesh
     * @param sourceOfSpan for each span of the mesh the index of its source material, or {@link #NONE}
     */
    public record Part(int group, String name, Transform local, int mesh, List<Integer> sourceOfSpan)
            implements Serializable {}

    /** One span of one part: the smallest piece that arrives with one source material. */
    public record Region(int part, int span) implements Serializable {}

    /** @param source index of the source material, or {@link #NONE} */
    public record MatchingSet(int source, String name, List<Region> regions) {}
}
