package app.zolvan.server.scheme;

import app.zolvan.server.project.Edit;
import app.zolvan.server.project.Query;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Changes of a project's materials. */
@RestController
@RequestMapping("/api/projects/{id}")
class MaterialController {
    private final MaterialCommands commands;
    private final PaletteCommands palette;

    MaterialController(MaterialCommands commands, PaletteCommands palette) {
        this.palette = palette;
        this.commands = commands;
    }

    /**
     * @param material one of the palette that is meant wherever it is shown, or nowhere yet; null for what a region shows
     * @param only   the parts that change; null for all that show the same material
     * @param here   whether other schemes keep what they show; null for no
     * @param values of parameters, by OpenPBR's names, and wishes about several
     */
    record Adjustment(
            int part,
            int span,
            @Nullable UUID material,
            @Nullable @Size(max = 100_000) List<Integer> only,
            @Nullable Boolean here,
            @NotEmpty @Size(max = 100) Map<String, Object> values) {}

    record NewName(@NotNull @Size(max = 200) String name) {}

    /**
     * @param parts  get it; none to have it in the palette only
     * @param colour its colour in linear light; null for that of what it is made from
     */
    record NewCopy(
            @NotNull @Size(max = 200) String name,
            boolean variation,
            @NotNull @Size(max = 100_000) List<Integer> parts,
            @Nullable @Size(min = 3, max = 3) List<@NotNull Double> colour) {}

    @PostMapping("/adjustments")
    ProjectState adjust(Edit edit, @Validated @RequestBody Adjustment a) {
        if (a.material() != null) {
            return commands.adjustOwn(edit, a.material(), a.values());
        }
        return commands.adjust(edit, a.part(), a.span(), a.only(), Boolean.TRUE.equals(a.here()), a.values());
    }

    /** @param only the parts that change; null for all that show the same material */
    record Meeting(
            int part,
            int span,
            @Nullable @Size(max = 100_000) List<Integer> only) {}

    /** Has a material's pictures meet at their edges, so that no seam shows where they repeat. */
    @PostMapping("/meeting-edges")
    ProjectState meetEdges(Edit edit, @Validated @RequestBody Meeting m) {
        return commands.meetEdges(edit, m.part(), m.span(), m.only());
    }

    @PostMapping("/preview")
    MaterialCommands.Preview preview(Query query, @Validated @RequestBody Adjustment a) {
        return a.material() == null
                ? commands.preview(query, a.part(), a.span(), a.values())
                : commands.previewOwn(query.account(), query.project(), a.material(), a.values());
    }

    @PostMapping("/materials/{material}/name")
    ProjectState rename(Edit edit, @PathVariable UUID material, @Validated @RequestBody NewName n) {
        return commands.rename(edit, material, n.name());
    }

    /** Takes a material that nothing uses out of the palette. */
    @DeleteMapping("/materials/{material}")
    ProjectState remove(Edit edit, @PathVariable UUID material) {
        return palette.remove(edit, material);
    }

    /** Another material made of one: a copy, or a variation that follows it. */
    @PostMapping("/materials/{material}/copies")
    ProjectState copy(Edit edit, @PathVariable UUID material, @Validated @RequestBody NewCopy n) {
        return commands.copy(edit, material, n);
    }

    @PostMapping("/materials/{material}/independence")
    ProjectState makeIndependent(Edit edit, @PathVariable UUID material) {
        return commands.makeIndependent(edit, material);
    }
}
