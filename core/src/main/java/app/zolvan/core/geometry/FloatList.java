package app.zolvan.core.geometry;

import java.util.Arrays;

/** A growing list of floats without boxes. */
public final class FloatList {
    private float[] values = new float[16];
    private int size;

    public void add(float v) {
        if (size == values.length) {
            values = Arrays.copyOf(values, size + (size >> 1) + 16);
        }
        values[size++] = v;
    }

    public int size() {
        return size;
    }

    public float get(int i) {
        return values[i];
    }

    public void set(int i, float v) {
        values[i] = v;
    }

    public float[] toArray() {
        return Arrays.copyOf(values, size);
    }

    /** What the list holds, in an array that may be longer; not a copy. */
    public float[] array() {
        return values;
    }
}
