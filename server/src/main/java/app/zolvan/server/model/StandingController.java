package app.zolvan.server.model;

import app.zolvan.core.context.Standpoint;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.server.account.Account;
import app.zolvan.server.project.ProjectService;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.UUID;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** Where one can stand in a project's model. */
@RestController
class StandingController {
    private final StandingService standing;
    private final ProjectService projects;

    StandingController(StandingService standing, ProjectService projects) {
        this.standing = standing;
        this.projects = projects;
    }

    /**
     * @param picked a point of a surface: x, y, z in metres
     * @param seen   from where it was picked
     * @param along  where one looks
     */
    record StandWanted(
            @NotNull @Size(min = 3, max = 3) List<@NotNull Double> picked,
            @NotNull @Size(min = 3, max = 3) List<@NotNull Double> seen,
            @NotNull @Size(min = 3, max = 3) List<@NotNull Double> along) {}

    /**
     * @param eye     where the eyes are
     * @param towards where they look, of unit length
     * @param height  of the eyes above the floor, in metres
     * @param lowered whether they are lower than usual, for what is above
     */
    record Stand(List<Double> eye, List<Double> towards, double height, boolean lowered, boolean enclosed) {}

    /** Where one stands at a picked point; changes nothing. */
    @PostMapping("/api/projects/{id}/standpoint")
    Stand stand(
            @AuthenticationPrincipal Account account, @PathVariable UUID id, @Validated @RequestBody StandWanted w) {
        projects.require(account, id);
        Standpoint s = standing.at(id, point(w.picked()), point(w.seen()), point(w.along()));
        return new Stand(
                list(s.eye()), list(s.towards()), s.height(), s.height() < Standpoint.EYE_HEIGHT, s.enclosed());
    }

    private static Vec3 point(List<Double> of) {
        return new Vec3(of.get(0), of.get(1), of.get(2));
    }

    private static List<Double> list(Vec3 v) {
        return List.of(v.x(), v.y(), v.z());
    }
}
