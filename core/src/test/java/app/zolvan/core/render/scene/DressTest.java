package app.zolvan.core.render.scene;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.core.ageing.AgeFields;
import app.zolvan.core.assign.Level;
import app.zolvan.core.assign.Look;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.mapping.Mapping;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.MaterialKind;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

/** What looks make of a span that rays meet. */
class DressTest {
    private static Look look(MaterialKind kind, Surface surface, Mapping mapping, Level from) {
        return Look.of(new Material("", "it", kind, surface), mapping, 0.01, from);
    }

    private static Dress dress(MaterialKind kind, double ior) {
        Surface clear = Surface.STANDARD.with(Parameter.TRANSMISSION_WEIGHT, 1).with(Parameter.SPECULAR_IOR, ior);
        return Dress.of(look(kind, clear, null, Level.SET));
    }

    /** Painted colours of the mesh are the file's; pictures lie by metres unless they follow the model's own coordinates. */
    @Test
    void itLiesAndIsPaintedAsTheStageShowsIt() {
        Dress arrived = Dress.of(look(MaterialKind.PAINT, Surface.STANDARD, new Mapping.ModelUvs(), null));
        assertThat(arrived.painted()).isTrue();
        assertThat(arrived.metric()).isFalse();
        Dress given = Dress.of(look(MaterialKind.PAINT, Surface.STANDARD, null, Level.PART));
        assertThat(given.painted()).isFalse();
        assertThat(given.metric()).isTrue();
    }

    /** An open mesh has no inside that light could be in, on either side. */
    @Test
    void aClearSurfaceOfAnOpenMeshIsAPane() {
        Surface green = Surface.STANDARD
                .with(Parameter.TRANSMISSION_WEIGHT, 1)
                .with(Parameter.TRANSMISSION_COLOR, 0.2, 0.9, 0.4)
                .with(Parameter.TRANSMISSION_DEPTH, 0.02);
        Surface pane = Dress.of(green).open().surface();
        assertThat(pane.flag(Parameter.GEOMETRY_THIN_WALLED)).isTrue();
        assertThat(pane.colour(Parameter.TRANSMISSION_COLOR)).isEqualTo(LinearRgb.WHITE);
        Surface tinted = green.with(Parameter.TRANSMISSION_DEPTH, 0);
        assertThat(Dress.of(tinted).open().surface().colour(Parameter.TRANSMISSION_COLOR))
                .isEqualTo(tinted.colour(Parameter.TRANSMISSION_COLOR));
        assertThat(Dress.of(Surface.STANDARD)
                        .behind(Dress.of(green))
                        .open()
                        .behind()
                        .surface())
                .isEqualTo(pane);
        assertThat(Dress.of(Surface.STANDARD).open().surface()).isEqualTo(Surface.STANDARD);
    }

    @Test
    void aVesselGoesBeforeWhatIsInIt() {
        int glass = dress(MaterialKind.GLASS, 1.52).priority();
        assertThat(glass).isGreaterThan(dress(MaterialKind.LIQUID, 1.7).priority());
        assertThat(glass).isGreaterThan(dress(MaterialKind.GLASS, 1.5).priority());
        assertThat(dress(MaterialKind.LIQUID, 1.47).priority())
                .isGreaterThan(dress(MaterialKind.LIQUID, 1.33).priority());
    }

    /** Only what has aged asks how readily the part ages, and each side as its own look weathers. */
    @Test
    void eachSideAgesByItsOwnLook() {
        Look fresh = look(MaterialKind.PAINT, Surface.STANDARD, null, Level.PART);
        Surface rusty = Surface.STANDARD.with(Parameter.BASE_METALNESS, 1).with(Parameter.AGE_WEATHERING, 0.5);
        Look old = look(MaterialKind.METAL, rusty, null, Level.PART);
        AgeFields fields = new AgeFields(null, new byte[0]);
        List<Boolean> asked = new ArrayList<>();
        Dress dress = Dress.of(fresh, old, corrodes -> {
            asked.add(corrodes);
            return fields;
        });
        assertThat(asked).as("as metal does").containsExactly(true);
        assertThat(dress.age()).isNull();
        assertThat(dress.behind().age()).isSameAs(fields);
        assertThat(dress.behind().surface()).isEqualTo(rusty);
        assertThat(Dress.of(fresh, null, corrodes -> fields).behind()).isNull();
    }
}
