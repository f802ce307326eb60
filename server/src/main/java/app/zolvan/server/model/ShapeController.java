package app.zolvan.server.model;

import app.zolvan.core.assign.Look;
import app.zolvan.core.exchange.RaisedParts;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.MeshCodec;
import app.zolvan.core.render.texture.Textures;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.ProjectService;
import app.zolvan.server.project.Query;
import app.zolvan.server.scheme.LookTable;
import app.zolvan.server.scheme.SchemeService;
import java.util.ArrayList;
import java.util.List;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

/** Parts with the reliefs of what they wear as shapes. */
@RestController
class ShapeController {
    /** A screen shows no finer one. */
    private static final int MOST = 150_000;

    private final ProjectService projects;
    private final SchemeService schemes;
    private final ModelStore store;
    private final AgeingService ageing;
    private final AssetService assets;

    ShapeController(
            ProjectService projects,
            SchemeService schemes,
            ModelStore store,
            AgeingService ageing,
            AssetService assets) {
        this.projects = projects;
        this.schemes = schemes;
        this.store = store;
        this.ageing = ageing;
        this.assets = assets;
    }

    /**
     * A part as the reliefs that it wears now shape it, as {@link MeshCodec} writes it; where it has aged, its second
     * coordinates are those of its ages.
     */
    @GetMapping(value = "/api/projects/{id}/parts/{part}/shape", produces = MediaType.APPLICATION_OCTET_STREAM_VALUE)
    ResponseEntity<byte[]> shape(Query query, @PathVariable int part) {
        Project project = projects.require(query.account(), query.project());
        LookTable table = schemes.looks(project, query);
        Scene.Part shown = table.scene().requireRegion(part, 0);
        List<Look> looks = new ArrayList<>();
        for (int span = 0; span < shown.sets().size(); span++) {
            looks.add(table.of(part, span));
        }
        Mesh shape = RaisedParts.shape(
                MeshCodec.decode(assets.bytes(shown.mesh())),
                shown.toWorld().stretch(),
                looks,
                new Textures(assets::bytes, Textures.BUDGET),
                corrodes -> ageing.of(store.scene(query.project()), part, corrodes),
                MOST);
        if (shape == null) {
            throw Problem.notFound("relief");
        }
        return ResponseEntity.ok().cacheControl(CacheControl.noStore()).body(MeshCodec.encode(shape));
    }
}
