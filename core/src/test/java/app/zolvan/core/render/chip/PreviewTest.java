package app.zolvan.core.render.chip;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.render.trace.Kernel;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.HashMap;
import java.util.Map;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class PreviewTest {
    /** Each edge is walked once either way, so that glass has an inside everywhere; and it is the right way out. */
    @ParameterizedTest
    @EnumSource(SampleForm.class)
    void formsAreClosedBodiesWithCoordinatesInMetres(SampleForm form) {
        Mesh m = form.mesh();
        Map<String, Integer> walks = new HashMap<>();
        for (int t = 0; t < m.triangleCount(); t++) {
            for (int k = 0; k < 3; k++) {
                String a = place(m.position(m.indices()[3 * t + k]));
                String b = place(m.position(m.indices()[3 * t + (k + 1) % 3]));
                walks.merge(a + " " + b, 1, Integer::sum);
                walks.merge(b + " " + a, -1, Integer::sum);
            }
        }
        assertThat(walks.values()).allMatch(n -> n == 0);
        assertThat(m.signedVolume()).isPositive();
        assertThat(m.signedVolume() / (m.area() / 2))
                .as("thickness")
                .isCloseTo(form.thickness(), within(0.4 * form.thickness()));
        double along = 0;
        for (int t = 0; t < m.triangleCount(); t++) {
            int a = m.indices()[3 * t];
            int b = m.indices()[3 * t + 1];
            Vec3 edge = m.position(b).minus(m.position(a));
            double du = m.metricUv()[2 * b] - m.metricUv()[2 * a];
            double dv = m.metricUv()[2 * b + 1] - m.metricUv()[2 * a + 1];
            along += Math.hypot(du, dv) / Math.max(1e-9, edge.length());
        }
        assertThat(along / m.triangleCount()).as("a metre is a metre").isCloseTo(1, within(0.2));
    }

    private static String place(Vec3 p) {
        return Math.round(p.x() * 1e6) + "," + Math.round(p.y() * 1e6) + "," + Math.round(p.z() * 1e6);
    }

    /** Whatever its size and place, a part fills the picture and no corner is cut off. */
    @Test
    void partsFillThePicture() throws IOException {
        Surface green = Surface.STANDARD.with(Parameter.SPECULAR_WEIGHT, 0).with(Parameter.BASE_COLOR, 0, 0.9, 0);
        for (Transform place : new Transform[] {
            Transform.IDENTITY,
            Transform.translation(90, -3, 4).after(Transform.scale(40, 40, 40)),
            Transform.scale(0.01, 0.2, 0.01)
        }) {
            Preview p = new Preview(SampleForm.VESSEL.mesh(), place, 0.003, true, null);
            byte[] png = p.coarse(green, i -> new byte[0], 2, Kernel.Kind.SCALAR);
            BufferedImage image = ImageIO.read(new ByteArrayInputStream(png));
            assertThat(image.getWidth()).isEqualTo(Preview.WIDTH / 2);
            int shown = 0;
            int rim = 0;
            for (int y = 0; y < image.getHeight(); y++) {
                for (int x = 0; x < image.getWidth(); x++) {
                    int rgb = image.getRGB(x, y);
                    boolean is = (rgb >> 8 & 255) > (rgb >> 16 & 255) + 60;
                    shown += is ? 1 : 0;
                    boolean edge = x < 2 || y < 2 || x > image.getWidth() - 3 || y > image.getHeight() - 3;
                    rim += is && edge ? 1 : 0;
                }
            }
            assertThat(rim).as("%s", place).isZero();
            assertThat(shown).isGreaterThan(place.equals(Transform.IDENTITY) ? 9_000 : 1_000);
        }
    }
}
