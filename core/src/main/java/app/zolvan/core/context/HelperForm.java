package app.zolvan.core.context;

import app.zolvan.core.colour.Srgb;
import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.TriangleSoup;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.SourceMaterial;
import app.zolvan.core.render.chip.Chip;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/**
 * Simple things to judge a design by, made to its size, and things of everyday size that give it scale and company. Each
 * stands on its own foot and looks along +z.
 */
public enum HelperForm {
    /** A level that takes shadows. */
    GROUND("Ground", "A level that takes shadows"),
    /** A floor that rises into a wall without an edge. */
    BACKDROP("Backdrop", "A floor that rises into a wall"),
    /** The form that samples are shown on, to see a look beside the design. */
    TILE("Test tile", "To see a look beside the design"),
    /** Stripes, dark and light, to see what glass does to what is behind it. */
    STRIPES("Striped card", "To see what glass does to what is behind it"),
    STOOL("Stool", "45 cm high"),
    CHAIR("Chair", "82 cm high, its seat 45 cm"),
    TABLE("Table", "160 × 80 cm, 74 cm high"),
    BOWL("Bowl", "24 cm wide"),
    PLANT("Potted plant", "About 60 cm high"),
    TREE("Tree", "About 5 m high"),
    DOG("Dog", "About 55 cm high at the shoulder");

    private static final double CREASE = Math.toRadians(30);
    private static final int ROUND = 24;
    private static final int PAIRS = 8;
    /** A ground lies so much lower than the design, as a share of its size, that neither is in the other. */
    private static final double UNDER = 5e-5;

    private final String word;
    private final String says;

    HelperForm(String word, String says) {
        this.word = word;
        this.says = says;
    }

    /** As a designer reads it. */
    public String word() {
        return word;
    }

    /** What it is for, or how large. */
    public String says() {
        return says;
    }

    /** Whether it is moved to where it looks well; the others stand where they are to. */
    public boolean isCompany() {
        return compareTo(STOOL) >= 0;
    }

    /** Whether things stand on it, and their shadows lie there. */
    public boolean isFloor() {
        return this == GROUND || this == BACKDROP;
    }

    /** The form, large enough for a design. */
    public Model model(Box3 design) {
        double wide = wide(design);
        double high = Math.max(design.size().y(), wide / 4);
        Builder b = new Builder();
        switch (this) {
            case GROUND -> b.part(word, "Ground grey", dull(0x8C, 0x8A, 0x86), level(12 * wide));
            case BACKDROP -> b.part(word, "Backdrop white", dull(0xD9, 0xD8, 0xD5), sweep(wide, high));
            case TILE -> b.part(word, "Tile grey", dull(0xB9, 0xB9, 0xB7), Chip.tile());
            case STRIPES -> {
                double width = 1.5 * Math.max(design.size().x(), wide / 2);
                b.part("Dark stripes", "Stripe dark", dull(0x24, 0x24, 0x24), stripes(width, 1.2 * high, 0));
                b.part("Light stripes", "Stripe light", dull(0xE6, 0xE5, 0xE3), stripes(width, 1.2 * high, 1));
            }
            case STOOL -> {
                b.part("Seat", "Stool wood", dull(0xB8, 0x93, 0x6A), ReadyThings.seat());
                b.part("Legs", "Stool steel", dull(0x3C, 0x3E, 0x40), ReadyThings.legs());
            }
            case CHAIR -> {
                b.part("Seat and back", "Chair wood", dull(0xB8, 0x93, 0x6A), ReadyThings.chairBoards());
                b.part("Frame", "Chair steel", dull(0x3C, 0x3E, 0x40), ReadyThings.chairFrame());
            }
            case TABLE -> {
                b.part("Top", "Table wood", dull(0xC4, 0xA4, 0x7C), ReadyThings.tableTop());
                b.part("Legs", "Table steel", dull(0x3C, 0x3E, 0x40), ReadyThings.tableLegs());
            }
            case BOWL -> b.part(word, "Bowl glaze", dull(0xD8, 0xD2, 0xC4), ReadyThings.bowl());
            case PLANT -> {
                b.part("Pot", "Pot clay", dull(0xA8, 0x6A, 0x4C), ReadyThings.pot());
                b.part("Soil", "Soil", dull(0x3B, 0x2E, 0x24), ReadyThings.soil());
                b.part("Leaves", "Leaf green", dull(0x4E, 0x6E, 0x3A), ReadyThings.leaves());
            }
            case TREE -> {
                b.part("Trunk", "Bark", dull(0x6A, 0x5C, 0x4E), ReadyThings.trunk());
                b.part("Crown", "Tree green", dull(0x5B, 0x78, 0x40), ReadyThings.crown());
            }
            case DOG -> b.part(word, "Coat brown", dull(0x8A, 0x6B, 0x4C), Dog.mesh());
        }
        return b.build();
    }

    /** Where it stands at first. */
    public Placement place(Box3 design) {
        Vec3 foot = Placement.footOf(design);
        double wide = wide(design);
        double under = foot.y() - UNDER * wide;
        return Placement.standingAt(
                switch (this) {
                    case GROUND -> new Vec3(foot.x(), under, foot.z());
                    case BACKDROP -> new Vec3(foot.x(), under, foot.z() + wide);
                    case TILE -> new Vec3(design.max().x() + 0.15 * wide + 0.07, foot.y(), foot.z());
                    case STRIPES -> new Vec3(foot.x(), foot.y(), design.min().z() - 0.25 * wide);
                    case STOOL, CHAIR -> new Vec3(design.max().x() + 0.05 * wide + 0.45, foot.y(), foot.z());
                    case TABLE -> new Vec3(design.max().x() + 0.05 * wide + 1, foot.y(), foot.z());
                    case DOG -> new Vec3(design.max().x() + 0.05 * wide + 0.45, foot.y(), foot.z() + 0.7);
                    case PLANT -> new Vec3(design.max().x() + 0.05 * wide + 0.45, foot.y(), foot.z() - 0.6);
                    case BOWL -> new Vec3(design.max().x() + 0.05 * wide + 0.15, foot.y(), foot.z() + 0.4);
                    case TREE ->
                        new Vec3(design.max().x() + 2.2, foot.y(), design.min().z() - 1);
                });
    }

    private static double wide(Box3 design) {
        Vec3 s = design.size();
        return Math.max(0.01, Math.max(Math.max(s.x(), s.z()), s.y() / 2));
    }

    /** A dull colour that is to be dressed. */
    private static Surface dull(int r, int g, int b) {
        return Surface.STANDARD
                .with(Parameter.BASE_COLOR, Srgb.fromCodes(r, g, b))
                .with(Parameter.SPECULAR_ROUGHNESS, 0.9)
                .with(Parameter.SPECULAR_WEIGHT, 0.3);
    }

    private static Mesh level(double half) {
        return new TriangleSoup()
                .quad(
                        new Vec3(-half, 0, half),
                        new Vec3(half, 0, half),
                        new Vec3(half, 0, -half),
                        new Vec3(-half, 0, -half))
                .toMesh(CREASE);
    }

    /** Profile in z and y: the floor, a quarter of a circle, the wall. */
    private static Mesh sweep(double wide, double high) {
        double half = 3 * wide;
        double round = 0.6 * wide;
        double back = -1.5 * wide;
        List<double[]> profile = new ArrayList<>();
        profile.add(new double[] {3.5 * wide, 0});
        for (int i = 0; i <= ROUND; i++) {
            double a = Math.PI / 2 * i / ROUND;
            profile.add(new double[] {back + round - round * Math.sin(a), round - round * Math.cos(a)});
        }
        profile.add(new double[] {back, round + 2.5 * high});
        TriangleSoup soup = new TriangleSoup();
        for (int i = 0; i + 1 < profile.size(); i++) {
            double[] p = profile.get(i);
            double[] q = profile.get(i + 1);
            soup.quad(
                    new Vec3(-half, p[1], p[0]),
                    new Vec3(half, p[1], p[0]),
                    new Vec3(half, q[1], q[0]),
                    new Vec3(-half, q[1], q[0]));
        }
        return soup.toMesh(CREASE);
    }

    /** Every second one of a card's upright stripes. */
    private static Mesh stripes(double width, double height, int first) {
        double stripe = width / (2 * PAIRS);
        TriangleSoup soup = new TriangleSoup();
        for (int i = first; i < 2 * PAIRS; i += 2) {
            double x = -width / 2 + i * stripe;
            soup.quad(
                    new Vec3(x, 0, 0),
                    new Vec3(x + stripe, 0, 0),
                    new Vec3(x + stripe, height, 0),
                    new Vec3(x, height, 0));
        }
        return soup.toMesh(CREASE);
    }

    private static final class Builder {
        private final List<Model.Part> parts = new ArrayList<>();
        private final List<Mesh> meshes = new ArrayList<>();
        private final List<SourceMaterial> sources = new ArrayList<>();

        void part(String name, String material, Surface surface, Mesh mesh) {
            parts.add(new Model.Part(Model.NONE, name, Transform.IDENTITY, meshes.size(), List.of(sources.size())));
            meshes.add(mesh);
            sources.add(new SourceMaterial(material, new Material("", material, null, surface)));
        }

        Model build() {
            return new Model(List.of(), parts, meshes, sources, Map.of(), List.of());
        }
    }
}
