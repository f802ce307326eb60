package app.zolvan.server.scheme;

import app.zolvan.core.context.Belonging;
import app.zolvan.core.context.HelperForm;
import app.zolvan.core.context.Placement;
import app.zolvan.core.context.Repeating;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.server.project.Edit;
import app.zolvan.server.scheme.ContextCommands.Arrangement;
import app.zolvan.server.scheme.ContextCommands.Repetition;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The models of a project: helper forms and files beside the one that it was made of. Lengths in metres. */
@RestController
@RequestMapping("/api/projects/{id}/models")
class ContextController {
    private final ContextCommands commands;

    ContextController(ContextCommands commands) {
        this.commands = commands;
    }

    record NewForm(@NotNull HelperForm form) {}

    /** Adds a helper form of the design's size. */
    @PostMapping
    ProjectState addForm(Edit edit, @Validated @RequestBody NewForm f) {
        return commands.addForm(edit, f.form());
    }

    record ModelDetails(
            @NotNull @Size(max = 200) String name, @NotNull Belonging belonging, boolean hidden, boolean locked) {}

    @PutMapping("/{model}")
    ProjectState change(Edit edit, @PathVariable int model, @Validated @RequestBody ModelDetails d) {
        return commands.change(edit, model, d.name(), d.belonging(), d.hidden(), d.locked());
    }

    /**
     * @param at      where the model's foot stands: x, y, z
     * @param degrees turns about x, y, z
     * @param scale   how many times its own size it has
     */
    record PlaceWire(
            @NotNull @Size(min = 3, max = 3) List<@NotNull Double> at,
            @NotNull @Size(min = 3, max = 3) List<@NotNull Double> degrees,
            double scale) {}

    @PutMapping("/{model}/place")
    ProjectState place(Edit edit, @PathVariable int model, @Validated @RequestBody PlaceWire p) {
        Placement to = new Placement(vector(p.at()), vector(p.degrees()), p.scale());
        return commands.place(edit, model, to);
    }

    /** Sets it down on what is below it. */
    @PostMapping("/{model}/rest")
    ProjectState rest(Edit edit, @PathVariable int model) {
        return commands.setDown(edit, model);
    }

    /** See {@link Repetition}. */
    record RepetitionWire(
            @NotNull Arrangement arrangement,
            @Min(1) @Max(Repeating.MOST) int count,
            @NotNull @Size(min = 3, max = 3) List<@NotNull Double> step,
            @NotNull @Size(min = 3, max = 3) List<@NotNull Double> centre,
            double degrees,
            int part,
            double apart,
            long seed) {}

    /** Puts copies of it beside it. */
    @PostMapping("/{model}/copies")
    ProjectState repeat(Edit edit, @PathVariable int model, @Validated @RequestBody RepetitionWire r) {
        return commands.repeat(
                edit,
                model,
                new Repetition(
                        r.arrangement(),
                        r.count(),
                        vector(r.step()),
                        vector(r.centre()),
                        r.degrees(),
                        r.part(),
                        r.apart(),
                        r.seed()));
    }

    @DeleteMapping("/{model}")
    ProjectState remove(Edit edit, @PathVariable int model) {
        return commands.remove(edit, model);
    }

    private static Vec3 vector(List<Double> v) {
        return new Vec3(v.get(0), v.get(1), v.get(2));
    }
}
