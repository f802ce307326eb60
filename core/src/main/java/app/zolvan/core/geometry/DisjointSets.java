package app.zolvan.core.geometry;

import java.util.Arrays;

/** Numbers that belong together, joined pair by pair (Galler and Fischer 1964). A set is known by its lowest number. */
public final class DisjointSets {
    private int[] parent;
    private int count;

    /** Each of so many numbers by itself. */
    public DisjointSets(int count) {
        parent = new int[Math.max(count, 1)];
        for (int i = 0; i < count; i++) {
            add();
        }
    }

    /** One more number, by itself. */
    public int add() {
        if (count == parent.length) {
            parent = Arrays.copyOf(parent, 2 * count);
        }
        parent[count] = count;
        return count++;
    }

    /** The lowest number that belongs to the same set. */
    public int find(int number) {
        int r = number;
        while (parent[r] != r) {
            parent[r] = parent[parent[r]];
            r = parent[r];
        }
        return r;
    }

    public void join(int a, int b) {
        int ra = find(a);
        int rb = find(b);
        parent[Math.max(ra, rb)] = Math.min(ra, rb);
    }
}
