package app.zolvan.server.colour;

import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The colour reader that is connected to this installation, if one is. */
@RestController
@RequestMapping("/api/colours/reader")
class ReaderController {
    private final ReaderService reader;

    ReaderController(ReaderService reader) {
        this.reader = reader;
    }

    record Held(@NotNull @Size(max = 200) String sample) {}

    @GetMapping
    ReaderService.ReaderState state() {
        return reader.state();
    }

    @PostMapping("/calibration")
    ReaderService.ReaderState calibrate() {
        return reader.calibrate();
    }

    /** The mean of a few readings of one sample. */
    @PostMapping("/readings")
    ReaderService.Reading read(@Validated @RequestBody Held h) {
        return reader.read(h.sample());
    }
}
