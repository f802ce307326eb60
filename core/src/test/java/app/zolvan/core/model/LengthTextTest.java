package app.zolvan.core.model;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Cases shared with the front end's lengths.test.ts: one rule, in both languages. */
class LengthTextTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "0.0254; IN; 1.00 in",
                "0.01; IN; 0.394 in",
                "3.048; FT; 10.0 ft",
                "0.6; MM; 600 mm",
                "0.004; MM; 4.0 mm",
                "0.6; CM; 60.0 cm",
                "0.6; M; 0.60 m",
                "12; MM; 12.0 m"
            })
    void aLengthIsWrittenForWhoWorksInAUnit(double metres, LengthUnit unit, String text) {
        assertThat(LengthText.of(metres, unit)).isEqualTo(text);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "0.5; M; 0.50 m²",
                "0.00001; M; 10 mm²",
                "1234; M; 1,234 m²",
                "0.0704; M; 704 cm²",
                "9.996; M; 10.00 m²",
                "73.84; MM; 73.8 m²",
                "141.2; M; 141 m²",
                "0.09290304; FT; 1.0 ft²",
                "0.00064516; IN; 1 in²"
            })
    void anAreaIsWrittenForWhoWorksInAUnit(double squareMetres, LengthUnit unit, String text) {
        assertThat(LengthText.ofArea(squareMetres, unit)).isEqualTo(text);
    }
}
