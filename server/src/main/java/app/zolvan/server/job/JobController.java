package app.zolvan.server.job;

import app.zolvan.server.account.Account;
import java.util.List;
import java.util.UUID;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The designer's long work. */
@RestController
@RequestMapping("/api/jobs")
class JobController {
    private final JobService jobs;

    JobController(JobService jobs) {
        this.jobs = jobs;
    }

    @GetMapping
    List<Job> recent(@AuthenticationPrincipal Account account) {
        return jobs.recent(account.id());
    }

    @GetMapping("/{id}")
    Job get(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        return jobs.get(account.id(), id);
    }

    /** Says what the job asked for; it goes on then. */
    @PostMapping("/{id}/answer")
    Job answer(
            @AuthenticationPrincipal Account account, @PathVariable UUID id, @Validated @RequestBody JobAnswer answer) {
        return jobs.answer(account.id(), id, answer);
    }

    @PostMapping("/{id}/cancel")
    Job cancel(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        return jobs.cancel(account.id(), id);
    }
}
