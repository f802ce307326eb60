package app.zolvan.server.proof;

import app.zolvan.core.geometry.Vec3;
import app.zolvan.server.account.Account;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.ProjectService;
import app.zolvan.server.proof.ProofService.Found;
import app.zolvan.server.proof.ProofService.Shot;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Stream;
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
    private static final double FARTHEST = 1e6;
    private static final double WIDEST = 150;
    private static final double BRIGHTEST = 100;
    private static final double MOST_STOPS = 12;

    private final ProjectService projects;
    private final ProofService proofs;

    ProofController(ProjectService projects, ProofService proofs) {
        this.projects = projects;
        this.proofs = proofs;
    }

    /** How the stage is lit, see {@link Shot}. */
    record ProofLight(@NotNull String surroundings, double strength, double turn, double stops) {}

    /**
     * @param eye     x, y, z in metres
     * @param target  what it looks at
     * @param degrees of the height that it takes in
     * @param only    the parts that are shown; null for all
     * @param view    in which one may look into more than always; null for none
     */
    record ProofWanted(
            @NotNull @Size(min = 3, max = 3) List<@NotNull Double> eye,
            @NotNull @Size(min = 3, max = 3) List<@NotNull Double> target,
            double degrees,
            int width,
            int height,
            @NotNull ProofLight light,
            @Nullable @Size(max = 10_000) List<@NotNull Integer> only,
            @Nullable UUID view) {

        Shot shot() {
            boolean isView = Stream.concat(eye.stream(), target.stream()).allMatch(v -> Math.abs(v) <= FARTHEST)
                    && !eye.equals(target)
                    && degrees > 0
                    && degrees <= WIDEST;
            if (!isView) {
                throw Problem.ofField(
                        "eye", "That is no view: it needs a place, something to look at, and up to 150°.");
            }
            if (width < 1
                    || height < 1
                    || width > LONGEST_SIDE
                    || height > LONGEST_SIDE
                    || width * height > MOST_PIXELS) {
                throw Problem.ofField(
                        "width", "A proof has up to 4096 pixels a side and 2.5 million in all. Ask for a smaller one.");
            }
            boolean isLight = light.strength >= 0
                    && light.strength <= BRIGHTEST
                    && Math.abs(light.turn) <= 360
                    && Math.abs(light.stops) <= MOST_STOPS;
            if (!isLight) {
                throw Problem.ofField("light", "That light is out of range: strength 0 to 100, 12 stops either way.");
            }
            return new Shot(
                    point(eye),
                    point(target),
                    degrees,
                    width,
                    height,
                    light.surroundings,
                    light.strength,
                    light.turn,
                    light.stops,
                    only == null ? null : Set.copyOf(only),
                    view);
        }

        private static Vec3 point(List<Double> of) {
            return new Vec3(of.get(0), of.get(1), of.get(2));
        }
    }

    record ProofBegun(UUID proof) {}

    /** Begins a proof, in the place of the account's last one; {@code proof} events tell how far it has come. */
    @PostMapping
    ProofBegun begin(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @Validated @RequestBody ProofWanted wanted) {
        Project project = projects.require(account, id);
        return new ProofBegun(proofs.begin(account, project, wanted.shot()));
    }

    /** Its picture so far; 202 while there is none. The header X-Final tells whether it is the last. */
    @GetMapping("/{proof}")
    ResponseEntity<byte[]> picture(
            @AuthenticationPrincipal Account account, @PathVariable UUID id, @PathVariable UUID proof) {
        projects.require(account, id);
        Found found = proofs.find(account, id, proof);
        ResponseEntity.BodyBuilder answer = (found.png() == null ? ResponseEntity.accepted() : ResponseEntity.ok())
                .cacheControl(CacheControl.noStore())
                .header("X-Final", Boolean.toString(found.news().done()));
        return found.png() == null
                ? answer.build()
                : answer.contentType(MediaType.IMAGE_PNG).body(found.png());
    }

    /** Ends the account's proof; what is there of it stays. */
    @DeleteMapping
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void end(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        projects.require(account, id);
        proofs.end(account);
    }
}
