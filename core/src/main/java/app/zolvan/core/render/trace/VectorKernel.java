package app.zolvan.core.render.trace;

import java.util.Arrays;
import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.IntVector;
import jdk.incubator.vector.VectorOperators;
import jdk.incubator.vector.VectorSpecies;

/**
 * The kernel that takes eight boxes and four triangles at a time. The binary tree is collapsed to nodes of up to eight
 * children by opening, again and again, the child with the largest surface (Wald et al. 2008).
 *
 * <p>Layout: node i has the minima and maxima of its children, eight of each, at {@code nodes[48i]} in the order x
 * minimum, x maximum, y …, z …; an empty place has minimum +∞ and maximum −∞. {@code children[8i …]} are node numbers, or
 * leaf numbers with {@link #LEAF} set. A leaf is a block of four triangles, corner by corner and axis by axis, four of each;
 * empty places hold NaN, which no ray meets.
 *
 * <p>Distances that are at least 0 sort like their bits, so slabs are compared as integers: a negative bound on either side
 * comes out as a miss.
 */
final class VectorKernel implements Kernel {
    private static final VectorSpecies<Float> EIGHT = FloatVector.SPECIES_256;
    private static final VectorSpecies<Integer> EIGHT_INTS = IntVector.SPECIES_256;
    private static final VectorSpecies<Integer> FOUR_INTS = IntVector.SPECIES_128;
    private static final VectorSpecies<Float> FOUR = FloatVector.SPECIES_128;
    /** Before Java 19 a mask could only become a number by way of an array, so sign bits are gathered one by one instead. */
    private static final boolean QUICK_MASKS = Runtime.version().feature() >= 19;

    private static final int LEAF = 1 << 30;
    private static final int NODE = 64;
    private static final int CHILDREN = 48;
    private static final int BLOCK = 40;
    private static final int IDS = 36;
    /** Where the first node begins: with an array's head of 16 bytes, on a line of the cache. */
    private static final int MARGIN = 12;

    private int[] nodes;
    private final int[] blocks;
    private int nodeCount;
    private int blockCount;

    static VectorKernel of(Pieces pieces, float[] vertices, int[] indices) {
        return new VectorKernel(pieces.tree(4, QUICK_MASKS ? VectorBins::new : Bins::new), vertices, indices);
    }

    private VectorKernel(BoundsTree tree, float[] vertices, int[] indices) {
        int leaves = tree.leaves();
        nodes = new int[MARGIN + NODE * Math.max(1, leaves / 3)];
        blocks = new int[MARGIN + BLOCK * leaves];
        new Collapse(tree, vertices, indices).node(0);
        nodes = Arrays.copyOf(nodes, MARGIN + NODE * nodeCount);
    }

    /** Makes wide nodes of the binary tree. */
    private final class Collapse {
        private final BoundsTree tree;
        private final float[] vertices;
        private final int[] indices;

        Collapse(BoundsTree tree, float[] vertices, int[] indices) {
            this.tree = tree;
            this.vertices = vertices;
            this.indices = indices;
        }

        int node(int root) {
            int[] open = new int[8];
            int count = 1;
            open[0] = root;
            while (count < 8) {
                int widest = -1;
                for (int i = 0; i < count; i++) {
                    if (!tree.isLeaf(open[i]) && (widest < 0 || tree.area(open[i]) > tree.area(open[widest]))) {
                        widest = i;
                    }
                }
                if (widest < 0) {
                    break;
                }
                int opened = open[widest];
                open[widest] = tree.left[opened];
                open[count++] = tree.right[opened];
            }
            int me = MARGIN + NODE * nodeCount++;
            if (me + NODE > nodes.length) {
                nodes = Arrays.copyOf(nodes, nodes.length * 3 / 2 + NODE);
            }
            for (int i = 0; i < 8; i++) {
                for (int k = 0; k < 3; k++) {
                    nodes[me + 16 * k + i] =
                            Float.floatToRawIntBits(i < count ? tree.bounds[6 * open[i] + k] : Float.POSITIVE_INFINITY);
                    nodes[me + 16 * k + 8 + i] = Float.floatToRawIntBits(
                            i < count ? tree.bounds[6 * open[i] + 3 + k] : Float.NEGATIVE_INFINITY);
                }
            }
            for (int i = 0; i < count; i++) {
                int child = tree.isLeaf(open[i]) ? LEAF | block(open[i]) : node(open[i]);
                nodes[me + CHILDREN + i] = child;
            }
            return me;
        }

        private int block(int leaf) {
            int me = MARGIN + BLOCK * blockCount++;
            Arrays.fill(blocks, me, me + IDS, Float.floatToRawIntBits(Float.NaN));
            for (int i = 0; i < tree.count(leaf); i++) {
                int t = tree.order[tree.left[leaf] + i];
                blocks[me + IDS + i] = t;
                for (int k = 0; k < 3; k++) {
                    for (int axis = 0; axis < 3; axis++) {
                        blocks[me + 12 * k + 4 * axis + i] =
                                Float.floatToRawIntBits(vertices[3 * indices[3 * t + k] + axis]);
                    }
                }
            }
            return me;
        }
    }

    @Override
    public boolean closest(Ray ray) {
        ray.shear();
        float rdx = Ray.reciprocal(ray.dx);
        float rdy = Ray.reciprocal(ray.dy);
        float rdz = Ray.reciprocal(ray.dz);
        FloatVector rx = FloatVector.broadcast(EIGHT, rdx);
        FloatVector ry = FloatVector.broadcast(EIGHT, rdy);
        FloatVector rz = FloatVector.broadcast(EIGHT, rdz);
        FloatVector bx = FloatVector.broadcast(EIGHT, -ray.ox * rdx);
        FloatVector by = FloatVector.broadcast(EIGHT, -ray.oy * rdy);
        FloatVector bz = FloatVector.broadcast(EIGHT, -ray.oz * rdz);
        int nx = rdx >= 0 ? 0 : 8;
        int ny = rdy >= 0 ? 16 : 24;
        int nz = rdz >= 0 ? 32 : 40;
        int fx = 8 - nx;
        int fy = 40 - ny;
        int fz = 72 - nz;
        IntVector least = IntVector.broadcast(EIGHT_INTS, Float.floatToRawIntBits(ray.tMin));
        int[] nodes = this.nodes;
        long[] stack = ray.stack;
        int[] signs = ray.signs;
        int[] lanes = ray.lanes;
        int limit = Float.floatToRawIntBits(ray.tMax);
        boolean found = false;
        int top = 0;
        int node = MARGIN;
        while (true) {
            if (node < LEAF) {
                int o = node;
                IntVector near = IntVector.fromArray(EIGHT_INTS, nodes, o + nx)
                        .reinterpretAsFloats()
                        .fma(rx, bx)
                        .reinterpretAsInts()
                        .max(IntVector.fromArray(EIGHT_INTS, nodes, o + ny)
                                .reinterpretAsFloats()
                                .fma(ry, by)
                                .reinterpretAsInts())
                        .max(IntVector.fromArray(EIGHT_INTS, nodes, o + nz)
                                .reinterpretAsFloats()
                                .fma(rz, bz)
                                .reinterpretAsInts()
                                .max(least));
                IntVector far = IntVector.fromArray(EIGHT_INTS, nodes, o + fx)
                        .reinterpretAsFloats()
                        .fma(rx, bx)
                        .reinterpretAsInts()
                        .min(IntVector.fromArray(EIGHT_INTS, nodes, o + fy)
                                .reinterpretAsFloats()
                                .fma(ry, by)
                                .reinterpretAsInts())
                        .min(IntVector.fromArray(EIGHT_INTS, nodes, o + fz)
                                .reinterpretAsFloats()
                                .fma(rz, bz)
                                .reinterpretAsInts()
                                .min(limit));
                long hits;
                if (QUICK_MASKS) {
                    hits = near.compare(VectorOperators.LE, far).toLong();
                } else {
                    far.max(-1).sub(near).intoArray(signs, 0);
                    hits = ~signBits(signs, 8) & 0xFF;
                }
                if (hits != 0) {
                    int c = node + CHILDREN;
                    int first = Long.numberOfTrailingZeros(hits);
                    hits &= hits - 1;
                    if (hits == 0) {
                        node = nodes[c + first];
                        continue;
                    }
                    near.intoArray(lanes, 0);
                    int second = Long.numberOfTrailingZeros(hits);
                    hits &= hits - 1;
                    long a = (long) lanes[first] << 32 | nodes[c + first];
                    long b = (long) lanes[second] << 32 | nodes[c + second];
                    long nearer = Math.min(a, b);
                    stack[top] = Math.max(a, b);
                    if (hits == 0) {
                        top++;
                        node = (int) nearer;
                        continue;
                    }
                    int base = top++;
                    stack[top++] = nearer;
                    do {
                        int i = Long.numberOfTrailingZeros(hits);
                        hits &= hits - 1;
                        long key = (long) lanes[i] << 32 | nodes[c + i];
                        int at = top++;
                        while (at > base && stack[at - 1] < key) {
                            stack[at] = stack[at - 1];
                            at--;
                        }
                        stack[at] = key;
                    } while (hits != 0);
                    node = (int) stack[--top];
                    continue;
                }
            } else {
                int block = node & (LEAF - 1);
                long hits = meet(ray, block, limit);
                if (hits != 0) {
                    found = true;
                    limit = nearest(ray, block, hits, limit);
                }
            }
            long entry;
            do {
                if (top == 0) {
                    return found;
                }
                entry = stack[--top];
            } while ((int) (entry >>> 32) > limit);
            node = (int) entry;
        }
    }

    private static int signBits(int[] v, int n) {
        int bits = 0;
        for (int i = 0; i < n; i++) {
            bits |= (v[i] >>> 31) << i;
        }
        return bits;
    }

    private int nearest(Ray ray, int block, long hits, int limit) {
        float best = Float.intBitsToFloat(limit);
        long left = hits;
        while (left != 0) {
            int i = Long.numberOfTrailingZeros(left);
            left &= left - 1;
            if (ray.distances[i] < best) {
                best = ray.distances[i];
                ray.primitive = blocks[block + IDS + i];
            }
        }
        ray.tMax = best;
        return Float.floatToRawIntBits(best);
    }

    /**
     * Which triangles of a block the ray meets within its limits, a bit each; their distances are left in the ray. All in
     * one method: vectors handed to a method that the compiler does not inline would each become an object.
     */
    private long meet(Ray r, int block, int limit) {
        int[] f = blocks;
        int o = block;
        int kx = o + 4 * r.kx;
        int ky = o + 4 * r.ky;
        int kz = o + 4 * r.kz;
        FloatVector sx = FloatVector.broadcast(FOUR, -r.sx);
        FloatVector sy = FloatVector.broadcast(FOUR, -r.sy);
        FloatVector ox = FloatVector.broadcast(FOUR, r.kox);
        FloatVector oy = FloatVector.broadcast(FOUR, r.koy);
        FloatVector oz = FloatVector.broadcast(FOUR, r.koz);
        FloatVector az =
                IntVector.fromArray(FOUR_INTS, f, kz).reinterpretAsFloats().sub(oz);
        FloatVector bz =
                IntVector.fromArray(FOUR_INTS, f, kz + 12).reinterpretAsFloats().sub(oz);
        FloatVector cz =
                IntVector.fromArray(FOUR_INTS, f, kz + 24).reinterpretAsFloats().sub(oz);
        FloatVector ax = az.fma(
                sx, IntVector.fromArray(FOUR_INTS, f, kx).reinterpretAsFloats().sub(ox));
        FloatVector ay = az.fma(
                sy, IntVector.fromArray(FOUR_INTS, f, ky).reinterpretAsFloats().sub(oy));
        FloatVector bx = bz.fma(
                sx,
                IntVector.fromArray(FOUR_INTS, f, kx + 12).reinterpretAsFloats().sub(ox));
        FloatVector by = bz.fma(
                sy,
                IntVector.fromArray(FOUR_INTS, f, ky + 12).reinterpretAsFloats().sub(oy));
        FloatVector cx = cz.fma(
                sx,
                IntVector.fromArray(FOUR_INTS, f, kx + 24).reinterpretAsFloats().sub(ox));
        FloatVector cy = cz.fma(
                sy,
                IntVector.fromArray(FOUR_INTS, f, ky + 24).reinterpretAsFloats().sub(oy));
        // products are rounded apart, so that the neighbour across an edge finds exactly the opposite
        FloatVector u = cx.mul(by).sub(cy.mul(bx));
        FloatVector v = ax.mul(cy).sub(ay.mul(cx));
        FloatVector w = bx.mul(ay).sub(by.mul(ax));
        if (!QUICK_MASKS) {
            u.intoArray(r.edges, 0);
            v.intoArray(r.edges, 4);
            w.intoArray(r.edges, 8);
            return inside(r, o, limit);
        }
        FloatVector t = u.fma(az, v.fma(bz, w.mul(cz)))
                .mul(FloatVector.broadcast(FOUR, r.sz))
                .div(u.add(v).add(w));
        IntVector bits = t.reinterpretAsInts();
        // inside: none negative, or none positive; + 0 makes +0 of −0, whose sign bit would tell wrongly
        IntVector iu = u.add(0f).reinterpretAsInts();
        IntVector iv = v.add(0f).reinterpretAsInts();
        IntVector iw = w.add(0f).reinterpretAsInts();
        long hits = bits.compare(VectorOperators.GT, Float.floatToRawIntBits(r.tMin))
                        .toLong()
                & bits.compare(VectorOperators.LT, limit).toLong()
                & ~(iu.or(iv).or(iw).compare(VectorOperators.LT, 0).toLong()
                        & iu.max(iv).max(iw).compare(VectorOperators.GT, 0).toLong());
        if (hits != 0) {
            t.intoArray(r.distances, 0);
        }
        return hits;
    }

    /** The last step of {@link #meet} one by one: so little is left that a mask would cost more. */
    private long inside(Ray r, int o, int limit) {
        float[] e = r.edges;
        int[] f = blocks;
        int kz = o + 4 * r.kz;
        long hits = 0;
        for (int i = 0; i < 4; i++) {
            float u = e[i];
            float v = e[4 + i];
            float w = e[8 + i];
            if (Math.min(Math.min(u, v), w) < 0 && Math.max(Math.max(u, v), w) > 0) {
                continue;
            }
            float az = Float.intBitsToFloat(f[kz + i]) - r.koz;
            float bz = Float.intBitsToFloat(f[kz + 12 + i]) - r.koz;
            float cz = Float.intBitsToFloat(f[kz + 24 + i]) - r.koz;
            float t = Math.fma(u, az, Math.fma(v, bz, w * cz)) * r.sz / (u + v + w);
            if (t > r.tMin && t < Float.intBitsToFloat(limit)) {
                r.distances[i] = t;
                hits |= 1L << i;
            }
        }
        return hits;
    }

    @Override
    public boolean occluded(Ray ray) {
        ray.shear();
        float rdx = Ray.reciprocal(ray.dx);
        float rdy = Ray.reciprocal(ray.dy);
        float rdz = Ray.reciprocal(ray.dz);
        FloatVector rx = FloatVector.broadcast(EIGHT, rdx);
        FloatVector ry = FloatVector.broadcast(EIGHT, rdy);
        FloatVector rz = FloatVector.broadcast(EIGHT, rdz);
        FloatVector bx = FloatVector.broadcast(EIGHT, -ray.ox * rdx);
        FloatVector by = FloatVector.broadcast(EIGHT, -ray.oy * rdy);
        FloatVector bz = FloatVector.broadcast(EIGHT, -ray.oz * rdz);
        int nx = rdx >= 0 ? 0 : 8;
        int ny = rdy >= 0 ? 16 : 24;
        int nz = rdz >= 0 ? 32 : 40;
        int fx = 8 - nx;
        int fy = 40 - ny;
        int fz = 72 - nz;
        IntVector least = IntVector.broadcast(EIGHT_INTS, Float.floatToRawIntBits(ray.tMin));
        int limit = Float.floatToRawIntBits(ray.tMax);
        IntVector most = IntVector.broadcast(EIGHT_INTS, limit);
        int[] nodes = this.nodes;
        long[] stack = ray.stack;
        int[] signs = ray.signs;
        int top = 0;
        int node = MARGIN;
        while (true) {
            if (node < LEAF) {
                int o = node;
                IntVector near = IntVector.fromArray(EIGHT_INTS, nodes, o + nx)
                        .reinterpretAsFloats()
                        .fma(rx, bx)
                        .reinterpretAsInts()
                        .max(IntVector.fromArray(EIGHT_INTS, nodes, o + ny)
                                .reinterpretAsFloats()
                                .fma(ry, by)
                                .reinterpretAsInts())
                        .max(IntVector.fromArray(EIGHT_INTS, nodes, o + nz)
                                .reinterpretAsFloats()
                                .fma(rz, bz)
                                .reinterpretAsInts()
                                .max(least));
                IntVector far = IntVector.fromArray(EIGHT_INTS, nodes, o + fx)
                        .reinterpretAsFloats()
                        .fma(rx, bx)
                        .reinterpretAsInts()
                        .min(IntVector.fromArray(EIGHT_INTS, nodes, o + fy)
                                .reinterpretAsFloats()
                                .fma(ry, by)
                                .reinterpretAsInts())
                        .min(IntVector.fromArray(EIGHT_INTS, nodes, o + fz)
                                .reinterpretAsFloats()
                                .fma(rz, bz)
                                .reinterpretAsInts()
                                .min(most));
                long hits;
                if (QUICK_MASKS) {
                    hits = near.compare(VectorOperators.LE, far).toLong();
                } else {
                    far.max(-1).sub(near).intoArray(signs, 0);
                    hits = ~signBits(signs, 8) & 0xFF;
                }
                while (hits != 0) {
                    stack[top++] = nodes[node + CHILDREN + Long.numberOfTrailingZeros(hits)];
                    hits &= hits - 1;
                }
            } else if (meet(ray, node & (LEAF - 1), limit) != 0) {
                return true;
            }
            if (top == 0) {
                return false;
            }
            node = (int) stack[--top];
        }
    }
}
