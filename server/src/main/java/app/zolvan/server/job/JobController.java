package app.zolvan.server.job;

import app.zolvan.server.account.Account;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.problem.Problem;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.UUID;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
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
import org.springframework.web.servlet.mvc.method.annotation.StreamingResponseBody;

/** The designer's long work. */
@RestController
@RequestMapping("/api/jobs")
class JobController {
    private final JobService jobs;
    private final AssetService assets;

    JobController(JobService jobs, AssetService assets) {
        this.assets = assets;
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

    /** Has it rest until it is resumed. */
    @PostMapping("/{id}/pause")
    Job pause(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        return jobs.pause(account.id(), id);
    }

    @PostMapping("/{id}/resume")
    Job resume(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        return jobs.resume(account.id(), id);
    }

    /** Takes one that has ended off the list. */
    @DeleteMapping("/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void dismiss(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        jobs.dismiss(account.id(), id);
    }

    /** A file that came of it. */
    @GetMapping(value = "/{id}/results/{number}", produces = MediaType.APPLICATION_OCTET_STREAM_VALUE)
    ResponseEntity<StreamingResponseBody> result(
            @AuthenticationPrincipal Account account, @PathVariable UUID id, @PathVariable int number) {
        String asset = jobs.result(account.id(), id, number);
        JobResult file = jobs.get(account.id(), id).results().stream()
                .filter(r -> r.number() == number)
                .findFirst()
                .orElseThrow(() -> Problem.notFound("file"));
        ContentDisposition attachment = ContentDisposition.attachment()
                .filename(file.name(), StandardCharsets.UTF_8)
                .build();
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_DISPOSITION, attachment.toString())
                .contentType(MediaType.parseMediaType(file.mediaType()))
                .contentLength(file.bytes())
                .body(out -> assets.copy(asset, out));
    }

    @PostMapping("/{id}/cancel")
    Job cancel(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        return jobs.cancel(account.id(), id);
    }
}
