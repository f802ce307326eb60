package app.zolvan.core.keep;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.zolvan.core.keep.Drawers.Drawer;
import app.zolvan.core.material.MaterialKind;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;

class DrawersTest {
    private final Drawers<String> house = new Drawers<>(List.of(
            new Drawer<>("oak", "wood", "Oak"),
            new Drawer<>("wood", null, "Wood"),
            new Drawer<>("lost", "gone", "Lost"),
            new Drawer<>("ash", "wood", "Ash"),
            new Drawer<>("metal", null, "Metal")));

    private static List<String> ids(Drawers<String> d) {
        return d.all().stream().map(Drawer::id).toList();
    }

    @Test
    void holdersComeBeforeWhatTheyHoldAndOrdersStay() {
        assertThat(ids(house)).containsExactly("wood", "oak", "ash", "lost", "metal");
        assertThat(house.depth("oak")).isEqualTo(1);
        assertThat(house.path("ash")).isEqualTo("Wood › Ash");
        assertThat(house.within("wood")).containsExactlyInAnyOrder("wood", "oak", "ash");
        assertThat(ids(house.moved("ash", "wood", 0))).containsExactly("wood", "ash", "oak", "lost", "metal");
        assertThat(ids(house.moved("metal", null, 0))).startsWith("metal", "wood");
        assertThat(ids(house.moved("wood", "metal", 9))).containsExactly("lost", "metal", "wood", "oak", "ash");
        assertThatThrownBy(() -> house.moved("wood", "oak", 0)).hasMessageContaining("in itself");
        assertThat(house.hindrance("wood", "wood")).isNotEmpty();
    }

    /** Whatever is moved where: none is lost, none lies in itself, none too deep, and it stands where it was put. */
    @Test
    void movesKeepAllDrawers() {
        Random random = new Random(7);
        List<Drawer<Integer>> some = new ArrayList<>();
        for (int i = 0; i < 30; i++) {
            some.add(new Drawer<>(i, null, "D" + i));
        }
        Drawers<Integer> d = new Drawers<>(some);
        int done = 0;
        for (int step = 0; step < 2_000; step++) {
            int id = random.nextInt(30);
            Integer into = random.nextInt(4) == 0 ? null : random.nextInt(30);
            int at = random.nextInt(4);
            if (!d.hindrance(id, into).isEmpty()) {
                continue;
            }
            done++;
            d = d.moved(id, into, at);
            assertThat(d.all()).hasSize(30);
            List<Integer> there = d.all().stream()
                    .filter(x -> Objects.equals(x.parent(), into))
                    .map(Drawer::id)
                    .toList();
            assertThat(there.indexOf(id)).isEqualTo(Math.min(at, there.size() - 1));
            for (Drawer<Integer> x : d.all()) {
                assertThat(d.depth(x.id())).isLessThan(Drawers.DEEPEST);
            }
        }
        assertThat(done).isGreaterThan(300);
    }

    @Test
    void codesAreFreeAndPlain() {
        assertThat(ItemCode.next(MaterialKind.BRICK, Set.of("BK-501", "bk-502")))
                .isEqualTo("BK-503");
        assertThat(ItemCode.next(null, Set.of())).isEqualTo("XX-501");
        assertThat(ItemCode.isAllowed("AQ 12/4-b")).isTrue();
        assertThat(ItemCode.isAllowed("")).isTrue();
        assertThat(ItemCode.isAllowed("<b>")).isFalse();
        assertThat(ItemCode.isAllowed("A".repeat(25))).isFalse();
    }

    @Test
    void eachRoleMayWhatThoseBeforeItMay() {
        assertThat(LibraryRole.USE.sees(false)).isFalse();
        assertThat(LibraryRole.EDIT.sees(false)).isTrue();
        assertThat(LibraryRole.USE.mayEdit()).isFalse();
        assertThat(LibraryRole.EDIT.mayApprove()).isFalse();
        assertThat(LibraryRole.APPROVE.mayEdit() && LibraryRole.APPROVE.mayApprove())
                .isTrue();
    }
}
