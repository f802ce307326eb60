package app.zolvan.core.texture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.awt.image.BufferedImage;
import java.io.IOException;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class DrawnReliefTest {
    /** Slopes are depth over width: twice as deep, twice as steep; as deep and as wide, the same. */
    @ParameterizedTest
    @EnumSource(DrawnRelief.class)
    void slopesGoByDepthAndWidth(DrawnRelief p) throws IOException {
        double once = steepness(p.drawn(0.002, 0.0002, 3).normals());
        assertThat(once).as("it stands out").isGreaterThan(0.01);
        assertThat(steepness(p.drawn(0.002, 0.0004, 3).normals()) / once).isCloseTo(2, within(0.25));
        assertThat(steepness(p.drawn(0.02, 0.002, 3).normals()) / once).isCloseTo(1, within(0.05));
        assertThat(steepness(p.drawn(0.002, 0, 3).normals())).isLessThan(0.006);
        assertThatThrownBy(() -> p.drawn(0.002, 0.0021, 1).normals()).isInstanceOf(IllegalArgumentException.class);
    }

    /** Mean slope, read back from the picture; a code is 1/127.5, so a flat one reads about 0.004. */
    private static double steepness(byte[] png) throws IOException {
        BufferedImage image = ImageFile.decode(png, 1 << 20);
        double sum = 0;
        for (int y = 0; y < image.getHeight(); y++) {
            for (int x = 0; x < image.getWidth(); x++) {
                int rgb = image.getRGB(x, y);
                double nx = (rgb >> 16 & 255) / 127.5 - 1;
                double ny = (rgb >> 8 & 255) / 127.5 - 1;
                double nz = (rgb & 255) / 127.5 - 1;
                sum += Math.hypot(nx, ny) / Math.max(0.05, nz);
            }
        }
        return sum / (image.getWidth() * image.getHeight());
    }
}
