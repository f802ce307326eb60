package app.zolvan.core;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.TriangleSoup;
import app.zolvan.core.geometry.Vec3;

/** Boxes about the origin, the simplest closed bodies to test on. */
public final class Cubes {
    private Cubes() {}

    public static Mesh box(double x, double y, double z) {
        TriangleSoup soup = new TriangleSoup();
        addTo(soup, x, y, z, false);
        return soup.toMesh(0.1);
    }

    public static void addTo(TriangleSoup soup, double x, double y, double z, boolean inwards) {
        for (int axis = 0; axis < 3; axis++) {
            for (int sign : new int[] {1, -1}) {
                Vec3 n = Vec3.axis(axis).times(sign);
                Vec3 u = Vec3.axis((axis + 1) % 3);
                Vec3 v = n.cross(u);
                Vec3[] c = new Vec3[4];
                for (int i = 0; i < 4; i++) {
                    int su = i == 0 || i == 3 ? -1 : 1;
                    int sv = i < 2 ? -1 : 1;
                    Vec3 p = n.plus(u.times(su)).plus(v.times(sv));
                    c[i] = new Vec3(p.x() * x / 2, p.y() * y / 2, p.z() * z / 2);
                }
                if (inwards) {
                    soup.quad(c[0], c[3], c[2], c[1]);
                } else {
                    soup.quad(c[0], c[1], c[2], c[3]);
                }
            }
        }
    }
}
