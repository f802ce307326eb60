package app.zolvan.core.geometry;

import java.util.Arrays;

/** A growing list of ints without boxes. */
public final class IntList {
    private int[] values = new int[16];
    private int size;

    public void add(int v) {
        if (size == values.length) {
            values = Arrays.copyOf(values, size + (size >> 1) + 16);
        }
        values[size++] = v;
    }

    public int get(int i) {
        return values[i];
    }

    public int size() {
        return size;
    }

    public int[] toArray() {
        return Arrays.copyOf(values, size);
    }
}
