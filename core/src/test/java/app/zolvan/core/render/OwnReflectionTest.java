package app.zolvan.core.render;

import static app.zolvan.core.render.Sheets.DARK;
import static app.zolvan.core.render.Sheets.MATT;
import static app.zolvan.core.render.Sheets.eye;
import static app.zolvan.core.render.Sheets.mean;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.Cubes;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.light.AreaLamp;
import app.zolvan.core.light.Environment;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.Channel;
import app.zolvan.core.material.TextureUse.RealSize;
import app.zolvan.core.render.path.Camera;
import app.zolvan.core.render.scene.Dress;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.render.texture.Textures;
import app.zolvan.core.render.trace.Kernel.Kind;
import app.zolvan.core.texture.Png;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** A surface that mirrors surroundings of its own: these alone change, and only in what it mirrors. */
class OwnReflectionTest {
    private static final Environment WHITE = Environment.uniform(1, 1, 1);
    private static final Camera EYE = eye(new Vec3(0, 0.4, 2), Vec3.ZERO, 6);

    /** Kinds of surfaces with a reflection. */
    private enum Finish {
        MIRROR(Surface.STANDARD.with(Parameter.BASE_METALNESS, 1).with(Parameter.SPECULAR_ROUGHNESS, 0)),
        BRUSHED(Surface.STANDARD
                .with(Parameter.BASE_METALNESS, 1)
                .with(Parameter.SPECULAR_ROUGHNESS, 0.5)
                .with(Parameter.SPECULAR_ROUGHNESS_ANISOTROPY, 0.5)),
        ENAMEL(Surface.STANDARD.with(Parameter.SPECULAR_ROUGHNESS, 0.1).with(Parameter.COAT_WEIGHT, 0.8)),
        CLOTH(Surface.STANDARD.with(Parameter.FUZZ_WEIGHT, 1).with(Parameter.SPECULAR_ROUGHNESS, 0.7)),
        GLASS(Sheets.GLASS.with(Parameter.SPECULAR_ROUGHNESS, 0.2)),
        PANE(Sheets.GLASS.with(Parameter.GEOMETRY_THIN_WALLED, true)),
        WAX(Surface.STANDARD.with(Parameter.SUBSURFACE_WEIGHT, 1).with(Parameter.SUBSURFACE_RADIUS, 0.01));

        final Surface surface;

        Finish(Surface s) {
            this.surface = s;
        }
    }

    private static Surface mirroring(Surface s) {
        return s.withTexture(
                Parameter.REFLECTED_SURROUNDINGS, TextureUse.repeating("around", Channel.RGB, new RealSize(1, 1)));
    }

    private static byte[] plain(int code) {
        byte c = (byte) code;
        return Png.encode(2, 1, new byte[] {c, c, c, c, c, c}, 72);
    }

    private static double seen(Surface s, byte[] around, Environment sky) {
        RenderScene scene = new RenderScene.Builder(Kind.SCALAR, new Textures(d -> around, Textures.BUDGET))
                .addDressed(AreaLamp.sphere(0.1), Transform.IDENTITY, List.of(Dress.of(s)))
                .build();
        return mean(scene, sky, EYE, 6, 6, 64)[1];
    }

    /** Where both are the same it makes no difference, and what it shows is linear in its own surroundings. */
    @ParameterizedTest
    @EnumSource
    void itTakesThePlaceOfTheSurroundingsInTheReflectionAlone(Finish finish) {
        Surface s = finish.surface;
        Surface own = mirroring(s);
        double plain = seen(s, plain(255), WHITE);
        double white = seen(own, plain(255), WHITE);
        double black = seen(own, plain(0), WHITE);
        assertThat(white).isCloseTo(plain, within(0.002));
        assertThat(black).isLessThan(white - 0.005);
        double grey = Srgb.decode(128 / 255.0);
        assertThat(seen(own, plain(128), WHITE)).isCloseTo(black + grey * (white - black), within(0.002));
        assertThat(seen(own.with(Parameter.REFLECTED_STRENGTH, 3), plain(255), WHITE))
                .isCloseTo(black + 3 * (white - black), within(0.01));
        // in the dark there is the reflection alone
        assertThat(seen(own, plain(255), DARK)).isCloseTo(white - black, within(0.004));
    }

    @Test
    void itLiesAsTheSurroundingsDo() {
        // 8 × 4 pixels of as many colours, once around the scene and once on the mirror
        byte[] codes = new byte[3 * 32];
        float[] rgb = new float[codes.length];
        for (int i = 0; i < codes.length; i++) {
            int code = 91 * i % 256;
            codes[i] = (byte) code;
            rgb[i] = (float) Srgb.decode(code / 255.0);
        }
        byte[] png = Png.encode(8, 4, codes, 72);
        Environment sky = new Environment(8, 4, rgb, 0, 1);
        for (int i = 0; i < 32; i += 3) {
            // a mirror that sends the view straight to the middle of a pixel, where neighbours don't blend in
            int row = i / 8;
            double v = Math.PI * (row + 0.5) / 4;
            double u = 2 * Math.PI * ((i % 8 + 0.5) / 8 - 0.5);
            Vec3 to = new Vec3(Math.sin(v) * Math.cos(u), Math.cos(v), Math.sin(v) * Math.sin(u));
            Vec3 turn = Vec3.axis(1).cross(to).normalised();
            Transform lies = Transform.rotation(turn, Math.acos(to.y()));
            Camera straight = new Camera(to.times(2), Vec3.ZERO, turn, Math.toRadians(0.1));
            double[] around = mirror(Finish.MIRROR.surface, png, lies, sky, straight);
            double[] own = mirror(mirroring(Finish.MIRROR.surface), png, lies, WHITE, straight);
            for (int c = 0; c < 3; c++) {
                assertThat(own[c]).as("pixel " + i).isCloseTo(around[c], within(0.004));
            }
        }
    }

    private static double[] mirror(Surface s, byte[] png, Transform lies, Environment sky, Camera camera) {
        RenderScene scene = new RenderScene.Builder(Kind.SCALAR, new Textures(d -> png, Textures.BUDGET))
                .addDressed(Sheets.sheet(0.5, 0, true), lies, List.of(Dress.of(s)))
                .build();
        return mean(scene, sky, camera, 2, 2, 16);
    }

    @Test
    void whatStandsInTheSceneIsMirroredStill() {
        // a mirror on the floor under a matt ceiling: its own surroundings are hidden
        RenderScene.Builder b = new RenderScene.Builder(Kind.SCALAR, new Textures(d -> plain(255), Textures.BUDGET));
        RenderScene scene = b.addDressed(
                        Sheets.sheet(0.5, 0, true),
                        Transform.IDENTITY,
                        List.of(Dress.of(mirroring(Finish.MIRROR.surface))))
                .add(Cubes.box(50, 0.1, 50), Transform.translation(0, 5, 0), List.of(MATT))
                .build();
        assertThat(mean(scene, DARK, eye(new Vec3(0, 1, 1), Vec3.ZERO, 4), 4, 4, 32)[1])
                .isZero();
    }
}
