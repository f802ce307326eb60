package app.zolvan.server.scheme;

import app.zolvan.server.account.Account;
import app.zolvan.server.job.Job;
import app.zolvan.server.job.JobService;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.ProjectService;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Projects as files. They come in where models do. */
@RestController
class ProjectFileController {
    private final ProjectService projects;
    private final JobService jobs;

    ProjectFileController(ProjectService projects, JobService jobs) {
        this.projects = projects;
        this.jobs = jobs;
    }

    /** Begins to write a project into a file, which is the job's result. */
    @PostMapping("/api/projects/{id}/file")
    @ResponseStatus(HttpStatus.ACCEPTED)
    Job write(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        Project project = projects.require(account, id);
        return jobs.submit(account.id(), ProjectFileWork.KIND, project.name(), null, id);
    }
}
