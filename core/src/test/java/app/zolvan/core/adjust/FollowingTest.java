package app.zolvan.core.adjust;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Shade;
import app.zolvan.core.material.MainColour;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class FollowingTest {
    private static final int MANY = 8;

    /** Against the plain rule: each material is worked out once all that it follows are. */
    @Property(tries = 300)
    void whatFollowsBecomesWhatThePlainRuleSays(@ForAll long seed) {
        Random random = new Random(seed);
        List<Following.Member<Integer>> all = new ArrayList<>();
        for (int i = 0; i < MANY; i++) {
            Integer parent = i > 0 && random.nextInt(3) > 0 ? random.nextInt(i) : null;
            Integer main = i > 0 && random.nextInt(3) > 0 ? random.nextInt(i) : null;
            Set<Parameter> own = main == null ? Set.of(Parameter.SPECULAR_ROUGHNESS) : Set.of(Parameter.BASE_COLOR);
            Shade shade = main == null ? null : new Shade(random.nextDouble() * 1.6 - 0.8);
            all.add(standing(new Following.Member<>(i, surface(random), parent, own, main, shade), all));
        }
        int changed = random.nextInt(MANY);
        Surface now = surface(random);

        Map<Integer, Surface> found = new Following<>(all, FollowingTest::noPicture).after(Map.of(changed, now));

        List<Surface> plain = new ArrayList<>();
        for (Following.Member<Integer> m : all) {
            Surface s = m.id() == changed ? now : shown(m, plain);
            plain.add(s);
            if (m.id() != changed) {
                assertThat(found.getOrDefault(m.id(), m.surface())).isEqualTo(s);
            }
        }
        assertThat(found).doesNotContainKey(changed);
    }

    /** A stored material shows what its leaders give it. */
    private static Following.Member<Integer> standing(
            Following.Member<Integer> m, List<Following.Member<Integer>> before) {
        Surface s = shown(m, before.stream().map(Following.Member::surface).toList());
        return new Following.Member<>(m.id(), s, m.parent(), m.own(), m.main(), m.shade());
    }

    private static Surface shown(Following.Member<Integer> m, List<Surface> leaders) {
        Surface s = m.surface();
        if (m.parent() != null) {
            s = Variation.of(leaders.get(m.parent()), s, m.own());
        }
        return m.main() == null
                ? s
                : MainColour.with(
                        s,
                        m.shade().of(MainColour.seen(leaders.get(m.main()), FollowingTest::noPicture)),
                        FollowingTest::noPicture);
    }

    private static LinearRgb noPicture(String digest) {
        throw new AssertionError("there are no pictures here: " + digest);
    }

    private static Surface surface(Random random) {
        return Surface.STANDARD
                .with(Parameter.BASE_COLOR, random.nextDouble(), random.nextDouble(), random.nextDouble())
                .with(Parameter.SPECULAR_ROUGHNESS, random.nextDouble())
                .with(Parameter.COAT_WEIGHT, random.nextDouble());
    }

    @Test
    void aCircleEndsAndIsKnown() {
        Map<String, Surface> grey = new HashMap<>();
        grey.put("a", Surface.STANDARD.with(Parameter.BASE_COLOR, 0.9, 0.1, 0.1));
        Following<String> circle = new Following<>(
                List.of(shade("a", "c"), shade("b", "a"), shade("c", "b"), shade("alone", null)),
                FollowingTest::noPicture);
        assertThat(circle.after(grey)).containsOnlyKeys("b", "c");
        assertThat(circle.decides("a", "c")).isTrue();
        assertThat(circle.decides("alone", "c")).isFalse();
        assertThat(circle.decides("alone", "alone")).isTrue();
    }

    @Test
    void aColourIsKeptWhateverElseChanges() {
        Surface red = Surface.STANDARD.with(Parameter.BASE_COLOR, 0.5, 0.05, 0.04);
        assertThat(Following.keepsColour(red, red.with(Parameter.SPECULAR_ROUGHNESS, 0.9), FollowingTest::noPicture))
                .isTrue();
        assertThat(Following.keepsColour(
                        red, red.with(Parameter.BASE_COLOR, 0.5, 0.055, 0.04), FollowingTest::noPicture))
                .isFalse();
    }

    private static Following.Member<String> shade(String id, String of) {
        return new Following.Member<>(id, Surface.STANDARD, null, Set.of(), of, of == null ? null : new Shade(-0.3));
    }
}
