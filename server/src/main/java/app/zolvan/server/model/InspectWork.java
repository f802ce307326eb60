package app.zolvan.server.model;

import app.zolvan.core.model.Excerpt;
import app.zolvan.core.prepare.ModelInspection;
import app.zolvan.server.job.JobOrder;
import app.zolvan.server.job.JobProgress;
import app.zolvan.server.job.JobWork;
import java.util.Objects;
import java.util.UUID;
import org.springframework.stereotype.Component;

/** The job that looks a project's model through again, after designers have changed its parts. */
@Component
class InspectWork implements JobWork {
    static final String KIND = "inspect";
    private static final double FETCH = 0.1;

    private final ModelStore store;

    InspectWork(ModelStore store) {
        this.store = store;
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public String name() {
        return "What needs attention";
    }

    @Override
    public int priority() {
        return 5;
    }

    @Override
    public UUID run(JobOrder order, JobProgress progress) {
        UUID project = Objects.requireNonNull(order.subject());
        progress.at(0, "Fetching the shapes");
        ModelStore.Standing standing = store.standing(project);
        progress.at(FETCH, "Looking for what needs attention");
        Excerpt design = standing.design();
        Findings found = Findings.of(ModelInspection.of(
                        standing.designed(design),
                        s -> progress.at(FETCH + s * (1 - FETCH), "Looking for what needs attention"))
                .stream()
                .map(f -> f.inWhole(design.parts()))
                .toList());
        store.keep(project, found, standing.revision());
        return project;
    }
}
