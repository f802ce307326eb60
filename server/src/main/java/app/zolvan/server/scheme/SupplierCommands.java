package app.zolvan.server.scheme;

import app.zolvan.core.keep.Article;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.TextureUse.RealSize;
import app.zolvan.core.measure.Photograph;
import app.zolvan.core.texture.ImageFile;
import app.zolvan.core.texture.Straighten;
import app.zolvan.server.account.Account;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.library.MaterialService;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.ProjectService;
import app.zolvan.server.supplier.SupplierService;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.UUID;
import javax.imageio.ImageIO;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/** Brings a supplier's samples into a project. */
@Service
class SupplierCommands {
    private static final long MOST_PIXELS = 16_000_000;
    /** What is left out along each edge of a piece that was cut out of its photograph. */
    private static final double INSET = 0.03;

    private final CommandService commands;
    private final SupplierService supplier;
    private final MaterialService materials;
    private final ProjectService projects;
    private final AssetService assets;
    private final TransactionTemplate transaction;

    SupplierCommands(
            CommandService commands,
            SupplierService supplier,
            MaterialService materials,
            ProjectService projects,
            AssetService assets,
            TransactionTemplate transaction) {
        this.commands = commands;
        this.supplier = supplier;
        this.materials = materials;
        this.projects = projects;
        this.assets = assets;
        this.transaction = transaction;
    }

    /**
     * Lays an article into the palette, with all that is known of it. A piece that was photographed on a ground is cut out and
     * straightened.
     *
     * @param width of what the photograph shows, in metres; null for what the supplier says
     */
    ProjectState bring(Account account, UUID projectId, long seen, String number, @Nullable Double width) {
        projects.require(account, projectId);
        Article article = supplier.article(number); // before the transaction: it may take its time
        SupplierService.Photo photo = supplier.photo(number);
        Photograph p = photo.judged();
        Size whole = size(article, p, width);
        boolean cut = p.shows() != Photograph.Shows.SURFACE;
        byte[] picture = cut ? straightened(photo) : photo.bytes();
        double left = cut ? 1 - 2 * INSET : 1;
        RealSize one = new RealSize(whole.width * left, whole.height * left);
        return transaction.execute(status -> {
            Project project = commands.begin(account, projectId, seen);
            String image = assets.store(picture, cut ? "image/png" : photo.mediaType());
            assets.addToProject(projectId, image);
            Material made = article.material(image, one);
            int position = materials.ofProject(projectId).size();
            MaterialRow row = MaterialService.brought(projectId, made, article.facts(), position);
            return commands.commit(
                    account,
                    project,
                    "Bring in " + article.name(),
                    List.of(new Change.OfMaterial(row.id(), null, row)));
        });
    }

    private record Size(double width, double height) {}

    private static Size size(Article a, Photograph p, @Nullable Double width) {
        if (width != null) {
            if (!(width >= Article.SMALLEST && width <= Article.LARGEST)) {
                throw Problem.ofField("width", "What it shows is between 2 mm and 20 m wide.");
            }
            double[] seen = p.seen();
            return new Size(width, width * seen[1] / seen[0]);
        }
        if (a.width() == null || a.height() == null) {
            throw Problem.ofField("width", "The supplier does not tell how large this is. Say how wide it is.");
        }
        return new Size(a.width(), a.height());
    }

    private static byte[] straightened(SupplierService.Photo photo) {
        try {
            BufferedImage image = ImageFile.decode(photo.bytes(), MOST_PIXELS);
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            ImageIO.write(Straighten.of(image, photo.judged().corners(), INSET), "png", out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
