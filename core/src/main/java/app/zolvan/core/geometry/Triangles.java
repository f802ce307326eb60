package app.zolvan.core.geometry;

/** What can be asked of single triangles. */
public final class Triangles {
    private Triangles() {}

    public static double area(Vec3 a, Vec3 b, Vec3 c) {
        return b.minus(a).cross(c.minus(a)).length() / 2;
    }

    /** Whether a stretch from a to b passes a triangle, by the signs of volumes. */
    public static boolean isCut(Vec3 a, Vec3 b, Vec3 p, Vec3 q, Vec3 r) {
        Vec3 n = q.minus(p).cross(r.minus(p));
        double from = a.minus(p).dot(n);
        double to = b.minus(p).dot(n);
        if (from > 0 == to > 0) {
            return false;
        }
        Vec3 way = b.minus(a);
        double u = way.dot(p.minus(a).cross(q.minus(a)));
        double v = way.dot(q.minus(a).cross(r.minus(a)));
        double w = way.dot(r.minus(a).cross(p.minus(a)));
        return (u >= 0 && v >= 0 && w >= 0) || (u <= 0 && v <= 0 && w <= 0);
    }

    /**
     * Whether a point of a triangle's plane lies in it.
     *
     * @param n the plane's normal, of any length, as the corners turn
     */
    public static boolean holds(Vec3 p, Vec3 n, Vec3 a, Vec3 b, Vec3 c) {
        return b.minus(a).cross(p.minus(a)).dot(n) >= 0
                && c.minus(b).cross(p.minus(b)).dot(n) >= 0
                && a.minus(c).cross(p.minus(c)).dot(n) >= 0;
    }

    /** From a point to a triangle (Ericson 2005, section 5.1.5). */
    public static double distance(Vec3 p, Vec3 a, Vec3 b, Vec3 c) {
        Vec3 ab = b.minus(a);
        Vec3 ac = c.minus(a);
        Vec3 ap = p.minus(a);
        double d1 = ab.dot(ap);
        double d2 = ac.dot(ap);
        if (d1 <= 0 && d2 <= 0) {
            return ap.length();
        }
        Vec3 bp = p.minus(b);
        double d3 = ab.dot(bp);
        double d4 = ac.dot(bp);
        if (d3 >= 0 && d4 <= d3) {
            return bp.length();
        }
        double vc = d1 * d4 - d3 * d2;
        if (vc <= 0 && d1 >= 0 && d3 <= 0) {
            return ap.minus(ab.times(d1 / (d1 - d3))).length();
        }
        Vec3 cp = p.minus(c);
        double d5 = ab.dot(cp);
        double d6 = ac.dot(cp);
        if (d6 >= 0 && d5 <= d6) {
            return cp.length();
        }
        double vb = d5 * d2 - d1 * d6;
        if (vb <= 0 && d2 >= 0 && d6 <= 0) {
            return ap.minus(ac.times(d2 / (d2 - d6))).length();
        }
        double va = d3 * d6 - d5 * d4;
        if (va <= 0 && d4 - d3 >= 0 && d5 - d6 >= 0) {
            return bp.minus(c.minus(b).times((d4 - d3) / (d4 - d3 + d5 - d6))).length();
        }
        double sum = va + vb + vc;
        return ap.minus(ab.times(vb / sum)).minus(ac.times(vc / sum)).length();
    }

    /**
     * The solid angle in steradians in which a triangle is seen from the origin, above 0 where it is seen from behind (Van
     * Oosterom & Strackee 1983).
     */
    public static double solidAngle(Vec3 a, Vec3 b, Vec3 c) {
        double la = a.length();
        double lb = b.length();
        double lc = c.length();
        double down = la * lb * lc + a.dot(b) * lc + b.dot(c) * la + c.dot(a) * lb;
        return 2 * Math.atan2(a.dot(b.cross(c)), down);
    }
}
