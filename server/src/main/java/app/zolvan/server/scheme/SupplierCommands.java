package app.zolvan.server.scheme;

import app.zolvan.core.keep.Article;
import app.zolvan.core.material.Material;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.library.MaterialService;
import app.zolvan.server.project.Edit;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.ProjectService;
import app.zolvan.server.supplier.SupplierService;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/** Brings a supplier's samples into a project. */
@Service
class SupplierCommands {
    private final CommandService commands;
    private final SupplierService supplier;
    private final MaterialService materials;
    private final ProjectService projects;
    private final AssetService assets;
    private final PictureEdges edges;
    private final TransactionTemplate transaction;

    SupplierCommands(
            CommandService commands,
            SupplierService supplier,
            MaterialService materials,
            ProjectService projects,
            AssetService assets,
            PictureEdges edges,
            TransactionTemplate transaction) {
        this.commands = commands;
        this.supplier = supplier;
        this.materials = materials;
        this.projects = projects;
        this.assets = assets;
        this.edges = edges;
        this.transaction = transaction;
    }

    /**
     * Lays an article into the palette, with all that is known of it. A piece that was photographed on a ground is cut out and
     * straightened.
     *
     * @param width of what the photograph shows, in metres; null for what the supplier says
     * @param meet  whether its edges are made to meet
     */
    ProjectState bring(Edit edit, String number, @Nullable Double width, boolean meet) {
        projects.require(edit.account(), edit.project());
        Article article = supplier.article(number); // before the transaction: it may take its time
        SupplierService.Photo photo = supplier.photo(number);
        PictureEdges.Sample sample = edges.sample(photo, article.repeat(photo.judged(), width), meet);
        return transaction.execute(status -> {
            Project project = commands.begin(edit);
            String image = assets.store(sample.picture(), photo.mediaType());
            assets.addToProject(edit.project(), image);
            Material made = article.material(image, sample.repeat());
            int position = materials.ofProject(edit.project()).size();
            MaterialRow row = MaterialService.brought(edit.project(), made, article.facts(), position);
            return commands.commit(
                    edit, project, "Bring in " + article.name(), List.of(new Change.OfMaterial(row.id(), null, row)));
        });
    }
}
