package app.zolvan.core.assign;

import java.util.ArrayList;
import java.util.List;

/** Every way to choose one of each of several lists. */
public final class Combinations {
    private Combinations() {}

    /** How many ways there are; {@link Long#MAX_VALUE} for as many or more. */
    public static long count(List<? extends List<?>> lists) {
        long n = 1;
        for (List<?> list : lists) {
            if (list.isEmpty()) {
                return 0;
            }
            n = n > Long.MAX_VALUE / list.size() ? Long.MAX_VALUE : n * list.size();
        }
        return n;
    }

    /** All ways, in the order of the lists: the last list changes fastest. */
    public static <T> List<List<T>> of(List<List<T>> lists) {
        List<List<T>> ways = new ArrayList<>();
        ways.add(List.of());
        for (List<T> list : lists) {
            List<List<T>> longer = new ArrayList<>();
            for (List<T> way : ways) {
                for (T choice : list) {
                    List<T> next = new ArrayList<>(way);
                    next.add(choice);
                    longer.add(List.copyOf(next));
                }
            }
            ways = longer;
        }
        return ways;
    }
}
