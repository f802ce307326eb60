package app.zolvan.core.prepare;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Topology;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.model.LengthText;
import app.zolvan.core.model.LengthUnit;
import app.zolvan.core.model.Model;
import app.zolvan.core.prepare.Bodies.Body;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;

/**
 * How a filling meets its vessel: it reaches into the wall, lies exactly on it, or keeps off it. Measured at points all over
 * the filling's surface, straight across to the nearest wall.
 *
 * @param filling index of the part that is the filling: the smaller of the two
 * @param vessel  index of the other
 * @param usual   the median, in metres; above 0 for a gap, below for an overlap
 * @param least   the least of nine tenths of the surface in contact, and {@code most} the most of them
 * @param area    how much of the filling's surface is in contact, in m²
 */
public record VesselContact(Kind kind, int filling, int vessel, double usual, double least, double most, double area) {

    /** What kind of contact it is. */
    public enum Kind {
        /** The filling reaches into the wall, as closed bodies are to. */
        OVERLAP,
        /** Both surfaces are in one place, as the boundaries between two media are to be. */
        COINCIDENT,
        /** There is something between them. */
        GAP,
        /** They have nothing to do with each other. */
        APART
    }

    /** Surfaces nearer to each other than this are in one place, in metres. */
    private static final double ONE_PLACE = 5e-6;
    /** Walls farther off than this share of the filling's size are not those that it touches. */
    private static final double REACH = 0.06;
    /** Where so little of the surface is near a wall, the two have nothing to do with each other. */
    private static final double LITTLE = 0.05;
    /** Contact is across where the surfaces lie within this angle of each other, as a cosine. */
    private static final double FACING = Math.cos(Math.toRadians(35));

    private static final int POINTS = 2000;
    /** How deep a filling is to reach into its wall, at least, in metres. */
    private static final double DEEP = 1e-4;

    /** A point of the surface: how far the wall is, and what area it stands for. */
    private record Look(double distance, double area) {}

    public static VesselContact of(Model model, int one, int other) {
        boolean first = size(model, one) <= size(model, other);
        int filling = first ? one : other;
        int vessel = first ? other : one;
        Body inner = outward(model, filling);
        Body outer = outward(model, vessel);
        boolean open = !Topology.of(model.meshOf(model.parts().get(vessel))).isClosed();
        List<Look> looks = looks(inner, outer, REACH * size(model, filling), open);
        double all = model.meshOf(model.parts().get(filling))
                .area(
                        0,
                        model.meshOf(model.parts().get(filling)).triangleCount(),
                        model.partToWorld(model.parts().get(filling)));
        double area = looks.stream().mapToDouble(Look::area).sum();
        if (looks.isEmpty() || area < LITTLE * all) {
            return new VesselContact(Kind.APART, filling, vessel, 0, 0, 0, 0);
        }
        looks.sort(Comparator.comparingDouble(Look::distance));
        double usual = at(looks, 0.5 * area);
        Kind kind = Math.abs(usual) <= ONE_PLACE ? Kind.COINCIDENT : usual < 0 ? Kind.OVERLAP : Kind.GAP;
        return new VesselContact(kind, filling, vessel, usual, at(looks, 0.05 * area), at(looks, 0.95 * area), area);
    }

    private static double size(Model model, int part) {
        return model.boundsOf(model.parts().get(part)).size().length();
    }

    /** A part in the world with its triangles looking outward, were it inside out. */
    private static Body outward(Model model, int part) {
        Model.Part p = model.parts().get(part);
        Mesh mesh = model.meshOf(p);
        Transform toWorld = model.partToWorld(p);
        boolean turned = mesh.signedVolume() * toWorld.determinant() < 0
                && Topology.of(mesh).isClosed();
        return Body.of(turned ? Sides.flip(mesh) : mesh, toWorld);
    }

    /** The distance that so much of the area does not exceed. */
    private static double at(List<Look> looks, double area) {
        double sum = 0;
        for (Look l : looks) {
            sum += l.area;
            if (sum >= area) {
                return l.distance;
            }
        }
        return looks.get(looks.size() - 1).distance;
    }

    private static List<Look> looks(Body filling, Body vessel, double reach, boolean both) {
        double total = 0;
        for (int t = 0; t < filling.triangles(); t++) {
            total += area(filling, t);
        }
        double cell = total / POINTS;
        List<Look> out = new ArrayList<>();
        double carried = cell / 2; // so that small triangles are met as often as their area asks for
        for (int t = 0; t < filling.triangles(); t++) {
            double area = area(filling, t);
            carried += area;
            int points = (int) (carried / cell);
            carried -= points * cell;
            int side = (int) Math.ceil(Math.sqrt(points));
            int rows = side == 0 ? 0 : (points + side - 1) / side;
            for (int i = 0; i < points; i++) {
                double u = (i % side + 0.5) / side;
                int row = i / side;
                double v = (row + 0.5) / rows;
                double r = Math.sqrt(u);
                Vec3 p = filling.corner(t, 0)
                        .times(1 - r)
                        .plus(filling.corner(t, 1).times(r * (1 - v)))
                        .plus(filling.corner(t, 2).times(r * v));
                look(filling, t, p, vessel, reach, both, cell, out);
            }
        }
        return out;
    }

    private static double area(Body b, int t) {
        return cross(b, t).length() / 2;
    }

    private static Vec3 cross(Body b, int t) {
        return b.corner(t, 1).minus(b.corner(t, 0)).cross(b.corner(t, 2).minus(b.corner(t, 0)));
    }

    /** Across to the nearest wall that lies much as the surface does, inward or outward. */
    private static void look(
            Body filling, int t, Vec3 p, Body vessel, double reach, boolean both, double area, List<Look> out) {
        Vec3 n = cross(filling, t).normalised();
        double best = vessel.along(p, n, reach, FACING, both);
        if (!Double.isNaN(best)) {
            out.add(new Look(best, area));
        }
    }

    /** What was found, in a sentence. */
    public String sentence(Model model, LengthUnit unit) {
        String what = "“" + model.parts().get(filling).name() + "”";
        String where = "“" + model.parts().get(vessel).name() + "”";
        String over = " over " + LengthText.ofArea(area, unit);
        return switch (kind) {
            case APART -> what + " and " + where + " have no surfaces that face each other.";
            case COINCIDENT -> what + " lies exactly on " + where + over + ".";
            case GAP -> "Between " + what + " and " + where + " there is a gap of " + range(unit) + over + ".";
            case OVERLAP -> what + " reaches " + range(unit) + " into " + where + over + ".";
        };
    }

    private String range(LengthUnit unit) {
        String usually = LengthText.of(Math.abs(usual), unit);
        String low = LengthText.of(Math.min(Math.abs(least), Math.abs(most)), unit);
        String high = LengthText.of(Math.max(Math.abs(least), Math.abs(most)), unit);
        if (least < 0 && most > 0) {
            return String.format(
                    Locale.ROOT,
                    "%s (from %s in to %s off)",
                    usually,
                    LengthText.of(-least, unit),
                    LengthText.of(most, unit));
        }
        return low.equals(high) ? usually : usually + " (" + low + " to " + high + ")";
    }

    /** Which way of modelling it is right for, and what to do for the other. */
    public String advice(LengthUnit unit) {
        String grow = LengthText.of(growth(), unit);
        return switch (kind) {
            case APART -> "";
            case COINCIDENT ->
                "Right for open boundary surfaces with a medium on either side. Closed bodies would flicker there: grow the"
                        + " filling by " + grow + ".";
            case GAP ->
                "Light gets in between, and the filling looks smaller than it is. Closed bodies are to overlap: grow the filling by "
                        + grow + ". Boundary surfaces are to lie exactly on each other.";
            case OVERLAP ->
                isOffInPlaces()
                        ? "In places it keeps off the wall, where light gets in between: grow the filling by "
                                + LengthText.of(growth(), unit) + "."
                        : "Right for closed bodies: the vessel keeps its wall and the filling begins where that ends. Boundary"
                                + " surfaces are to lie exactly on each other.";
        };
    }

    /** By how much the filling has to grow to reach into the wall, in metres; 0 where it does. */
    public double growth() {
        return switch (kind) {
            case APART -> 0;
            case GAP, COINCIDENT -> Math.max(0, usual) + DEEP;
            case OVERLAP -> isOffInPlaces() ? most + DEEP : 0;
        };
    }

    private boolean isOffInPlaces() {
        return most > ONE_PLACE;
    }
}
