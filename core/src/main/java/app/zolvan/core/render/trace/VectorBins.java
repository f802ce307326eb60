package app.zolvan.core.render.trace;

import app.zolvan.core.render.trace.BoundsTree.Things;
import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.IntVector;
import jdk.incubator.vector.VectorSpecies;

/** {@link Bins} with the JDK's vector module: a box grows in one step. Parts things exactly alike. */
final class VectorBins extends Bins {
    private static final VectorSpecies<Integer> EIGHT = IntVector.SPECIES_256;
    private static final VectorSpecies<Integer> FOUR = IntVector.SPECIES_128;
    private static final VectorSpecies<Float> FOUR_FLOATS = FloatVector.SPECIES_128;

    private final int[] place = new int[4];

    VectorBins(Things all) {
        super(all);
    }

    @Override
    void fill(int[] things, int from, int to, int bins) {
        int[] boxes = this.boxes;
        int[] counts = this.counts;
        int[] place = this.place;
        FloatVector extent = FloatVector.fromArray(FOUR_FLOATS, this.extent, 0);
        FloatVector low = FloatVector.fromArray(FOUR_FLOATS, this.low, 0);
        FloatVector scale = FloatVector.fromArray(FOUR_FLOATS, this.scale, 0);
        FloatVector half = FloatVector.broadcast(FOUR_FLOATS, 0.5f);
        FloatVector round = FloatVector.broadcast(FOUR_FLOATS, ROUND);
        IntVector bits = IntVector.broadcast(FOUR, ROUND_BITS);
        IntVector last = IntVector.broadcast(FOUR, bins - 1);
        IntVector zero = IntVector.zero(FOUR);
        for (int i = STRIDE * from; i < STRIDE * to; i += STRIDE) {
            FloatVector down = IntVector.fromArray(FOUR, things, i).reinterpretAsFloats();
            FloatVector up = IntVector.fromArray(FOUR, things, i + 4).reinterpretAsFloats();
            IntVector box = IntVector.fromArray(EIGHT, things, i);
            up.sub(down)
                    .add(extent)
                    .sub(low)
                    .mul(scale)
                    .sub(half)
                    .add(round)
                    .reinterpretAsInts()
                    .sub(bits)
                    .min(last)
                    .max(zero)
                    .intoArray(place, 0);
            int x = place[0];
            int y = MOST + place[1];
            int z = 2 * MOST + place[2];
            counts[x]++;
            counts[y]++;
            counts[z]++;
            IntVector.fromArray(EIGHT, boxes, STRIDE * x).max(box).intoArray(boxes, STRIDE * x);
            IntVector.fromArray(EIGHT, boxes, STRIDE * y).max(box).intoArray(boxes, STRIDE * y);
            IntVector.fromArray(EIGHT, boxes, STRIDE * z).max(box).intoArray(boxes, STRIDE * z);
        }
    }

    @Override
    int part(int[] things, int[] parted, int from, int to, int slot, int axis, int bin, int bins) {
        int[] state = this.state;
        int first = firstChild(slot) + CENTRES;
        int second = secondChild(slot) + CENTRES;
        FloatVector extent = FloatVector.fromArray(FOUR_FLOATS, this.extent, 0);
        int front = STRIDE * from;
        int back = STRIDE * (to - 1);
        for (int i = STRIDE * from; i < STRIDE * to; i += STRIDE) {
            FloatVector down = IntVector.fromArray(FOUR, things, i).reinterpretAsFloats();
            FloatVector up = IntVector.fromArray(FOUR, things, i + 4).reinterpretAsFloats();
            FloatVector centre = up.sub(down);
            IntVector above = centre.add(extent).reinterpretAsInts();
            IntVector below = extent.sub(centre).reinterpretAsInts();
            int goes = (bin(things, i, axis, bins) - bin) >> 31; // all ones: to the front
            int side = second + (goes & (first - second));
            IntVector.fromArray(FOUR, state, side).max(above).intoArray(state, side);
            IntVector.fromArray(FOUR, state, side + 4).max(below).intoArray(state, side + 4);
            IntVector.fromArray(EIGHT, things, i).intoArray(parted, back + (goes & (front - back)));
            front += goes & STRIDE;
            back -= ~goes & STRIDE;
        }
        return front / STRIDE;
    }
}
