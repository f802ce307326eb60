package app.zolvan.core.colour;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;

class CieLabTest {
    /** The 34 pairs of Sharma, Wu & Dalal 2005, table 1: L, a, b twice and the difference. */
    private static final List<String> PAIRS = List.of(
            "50 2.6772 -79.7751 50 0 -82.7485 2.0425",
            "50 3.1571 -77.2803 50 0 -82.7485 2.8615",
            "50 2.8361 -74.0200 50 0 -82.7485 3.4412",
            "50 -1.3802 -84.2814 50 0 -82.7485 1.0000",
            "50 -1.1848 -84.8006 50 0 -82.7485 1.0000",
            "50 -0.9009 -85.5211 50 0 -82.7485 1.0000",
            "50 0 0 50 -1 2 2.3669",
            "50 -1 2 50 0 0 2.3669",
            "50 2.4900 -0.0010 50 -2.4900 0.0009 7.1792",
            "50 2.4900 -0.0010 50 -2.4900 0.0010 7.1792",
            "50 2.4900 -0.0010 50 -2.4900 0.0011 7.2195",
            "50 2.4900 -0.0010 50 -2.4900 0.0012 7.2195",
            "50 -0.0010 2.4900 50 0.0009 -2.4900 4.8045",
            "50 -0.0010 2.4900 50 0.0010 -2.4900 4.8045",
            "50 -0.0010 2.4900 50 0.0011 -2.4900 4.7461",
            "50 2.5 0 50 0 -2.5 4.3065",
            "50 2.5 0 73 25 -18 27.1492",
            "50 2.5 0 61 -5 29 22.8977",
            "50 2.5 0 56 -27 -3 31.9030",
            "50 2.5 0 58 24 15 19.4535",
            "50 2.5 0 50 3.1736 0.5854 1.0000",
            "50 2.5 0 50 3.2972 0 1.0000",
            "50 2.5 0 50 1.8634 0.5757 1.0000",
            "50 2.5 0 50 3.2592 0.3350 1.0000",
            "60.2574 -34.0099 36.2677 60.4626 -34.1751 39.4387 1.2644",
            "63.0109 -31.0961 -5.8663 62.8187 -29.7946 -4.0864 1.2630",
            "61.2901 3.7196 -5.3901 61.4292 2.2480 -4.9620 1.8731",
            "35.0831 -44.1164 3.7933 35.0232 -40.0716 1.5901 1.8645",
            "22.7233 20.0904 -46.6940 23.0331 14.9730 -42.5619 2.0373",
            "36.4612 47.8580 18.3852 36.2715 50.5065 21.2231 1.4146",
            "90.8027 -2.0831 1.4410 91.1528 -1.6435 0.0447 1.4441",
            "90.9257 -0.5406 -0.9208 88.6381 -0.8985 -0.7239 1.5381",
            "6.7747 -0.2908 -2.4247 5.8714 -0.0985 -2.2286 0.6377",
            "2.0776 0.0795 -1.1350 0.9033 -0.0636 -0.5514 0.9082");

    @Test
    void differencesAreThoseOfThePublishedTable() {
        assertThat(PAIRS).hasSize(34);
        for (String pair : PAIRS) {
            String[] n = pair.split(" ");
            CieLab a = lab(n, 0);
            CieLab b = lab(n, 3);
            assertThat(a.difference(b)).as(pair).isCloseTo(Double.parseDouble(n[6]), within(5e-5));
            assertThat(b.difference(a)).as(pair).isCloseTo(a.difference(b), within(1e-12));
        }
    }

    @Test
    void whiteAndGreyHaveNoCast() {
        CieLab white = CieLab.of(LinearRgb.WHITE);
        assertThat(white.l()).isCloseTo(100, within(1e-4));
        assertThat(Math.hypot(white.a(), white.b())).isLessThan(0.01);
        assertThat(CieLab.of(LinearRgb.grey(0.18)).l()).isCloseTo(49.496, within(0.01));
    }

    private static CieLab lab(String[] n, int at) {
        return new CieLab(Double.parseDouble(n[at]), Double.parseDouble(n[at + 1]), Double.parseDouble(n[at + 2]));
    }
}
