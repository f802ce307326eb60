package app.zolvan.server.proof;

import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.light.LightSetup;
import app.zolvan.core.render.path.Camera;
import app.zolvan.server.account.Account;
import app.zolvan.server.light.LightService;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.ProjectService;
import app.zolvan.server.project.Query;
import app.zolvan.server.view.ViewCamera;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.CacheControl;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** What the stage shows, with its light traced. */
@RestController
@RequestMapping("/api/projects/{id}/proof")
class ProofController {
    private static final int LONGEST_SIDE = 4096;
    private static final int MOST_PIXELS = 2_500_000;

    private final ProjectService projects;
    private final ProofService proofs;
    private final LightService lights;

    ProofController(ProjectService projects, ProofService proofs, LightService lights) {
        this.lights = lights;
        this.projects = projects;
        this.proofs = proofs;
    }

    /**
     * @param light a light set-up of the project; null for its first
     * @param only  the parts that are shown; null for all
     * @param view  in which one may look into more than always; null for none
     */
    record ProofWanted(
            @NotNull @Valid ViewCamera camera,
            int width,
            int height,
            @Nullable UUID light,
            @NotNull @Valid Backdrop backdrop,
            @Nullable @Size(max = 10_000) List<@NotNull Integer> only,
            @Nullable UUID view) {

        Shot shot(LightSetup lit) {
            camera.require();
            backdrop.require();
            if (width < 1
                    || height < 1
                    || width > LONGEST_SIDE
                    || height > LONGEST_SIDE
                    || width * height > MOST_PIXELS) {
                throw Problem.ofField(
                        "width", "A proof has up to 4096 pixels a side and 2.5 million in all. Ask for a smaller one.");
            }
            double field = Math.toRadians(camera.degrees());
            return new Shot(
                    Camera.upright(point(camera.eyes()), point(camera.aim()), field),
                    width,
                    height,
                    lit,
                    backdrop,
                    only == null ? null : Set.copyOf(only),
                    view);
        }

        private static Vec3 point(double[] of) {
            return new Vec3(of[0], of[1], of[2]);
        }
    }

    record ProofBegun(UUID proof) {}

    /** Begins a proof, in the place of the account's last one; {@code proof} events tell how far it has come. */
    @PostMapping
    ProofBegun begin(Query query, @Validated @RequestBody ProofWanted wanted) {
        Project project = projects.require(query.account(), query.project());
        return new ProofBegun(proofs.begin(
                query,
                project,
                wanted.shot(lights.require(query.project(), wanted.light()).setup())));
    }

    /** Its picture so far; 202 while there is none. The header X-Final tells whether it is the last. */
    @GetMapping("/{proof}")
    ResponseEntity<byte[]> picture(
            @AuthenticationPrincipal Account account, @PathVariable UUID id, @PathVariable UUID proof) {
        projects.require(account, id);
        Proof found = proofs.find(account, id, proof);
        boolean last = found.isDone(); // asked before the picture: that is the last one then
        byte[] png = found.picture();
        ResponseEntity.BodyBuilder answer = (png == null ? ResponseEntity.accepted() : ResponseEntity.ok())
                .cacheControl(CacheControl.noStore())
                .header("X-Final", Boolean.toString(last));
        return png == null
                ? answer.build()
                : answer.contentType(MediaType.IMAGE_PNG).body(png);
    }

    /** Ends the account's proof; what is there of it stays. */
    @DeleteMapping
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void end(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        projects.require(account, id);
        proofs.end(account);
    }
}
