package app.zolvan.server.model;

import app.zolvan.core.context.Belonging;
import app.zolvan.core.exchange.DressedModel;
import app.zolvan.core.exchange.ModelWriter;
import app.zolvan.core.exchange.TooManyLeaves;
import app.zolvan.core.exchange.formats.ModelFormats;
import app.zolvan.core.exchange.project.ProjectArchive;
import app.zolvan.core.prepare.Roles;
import app.zolvan.server.account.Account;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.asset.Quota;
import app.zolvan.server.asset.Spool;
import app.zolvan.server.config.ZolvanProperties;
import app.zolvan.server.job.Job;
import app.zolvan.server.job.JobService;
import app.zolvan.server.problem.FileName;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.ProjectService;
import app.zolvan.server.project.Query;
import app.zolvan.server.scheme.LookTable;
import app.zolvan.server.scheme.SchemeService;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.StreamingResponseBody;

/** Models in (upload, import) and out (export). */
@RestController
class ModelController {
    /** The kind of work that makes a project of a project file. */
    private static final String TAKE_PROJECT = "take-project";

    private final AssetService assets;
    private final ImportService imports;
    private final ModelStore store;
    private final DressedModels models;
    private final ModelSurvey survey;
    private final ProjectService projects;
    private final JobService jobs;
    private final SchemeService schemes;
    private final ZolvanProperties properties;
    private final Quota quota;

    ModelController(
            AssetService assets,
            ImportService imports,
            ModelStore store,
            DressedModels models,
            ModelSurvey survey,
            ProjectService projects,
            JobService jobs,
            SchemeService schemes,
            ZolvanProperties properties,
            Quota quota) {
        this.quota = quota;
        this.assets = assets;
        this.imports = imports;
        this.store = store;
        this.models = models;
        this.survey = survey;
        this.projects = projects;
        this.jobs = jobs;
        this.schemes = schemes;
        this.properties = properties;
    }

    /**
     * @param uploadBytes what an upload may weigh
     * @param formats     the formats that the server reads, as people call them
     */
    record Limits(long uploadBytes, List<String> formats) {}

    @GetMapping("/api/limits")
    Limits limits() {
        return new Limits(properties.uploadLimit().toBytes(), ModelFormats.names());
    }

    /**
     * Takes a file as the request's body and starts importing it.
     *
     * @param fileName  URL-encoded, so that any name fits into a header
     * @param project   the project whose surfaces were cut anew and that keeps its looks, or that gets the materials; none
     *                  to make a new one
     * @param materials whether only the materials are wanted
     * @param update    whether it is a newer file of the project's model, to be compared with it first
     * @param late      whether it is files that the model refers to and that did not come along
     * @param beside    what the file's model is to the project that it is added to; none where it is for something else
     */
    @PostMapping("/api/imports")
    @ResponseStatus(HttpStatus.ACCEPTED)
    Job upload(
            @AuthenticationPrincipal Account account,
            @RequestHeader("X-File-Name") String fileName,
            @RequestParam(required = false) @Nullable UUID project,
            @RequestParam(defaultValue = "false") boolean materials,
            @RequestParam(defaultValue = "false") boolean update,
            @RequestParam(defaultValue = "false") boolean late,
            @RequestParam(required = false) @Nullable Belonging beside,
            HttpServletRequest request)
            throws IOException {
        boolean forOpen = materials || update || late || beside != null;
        if (forOpen && project == null) {
            throw Problem.ofField("project", "Say which project the file is for.");
        }
        if (project != null) {
            projects.require(account, project);
            if (!forOpen) {
                store.requireCut(project);
            }
        }
        long limit = properties.uploadLimit().toBytes();
        if (request.getContentLengthLong() > limit) {
            throw AssetService.tooLarge(limit);
        }
        quota.require(account.id(), request.getContentLengthLong());
        String name = FileName.decoded(fileName);
        boolean isProject = project == null && name.toLowerCase(Locale.ROOT).endsWith(ProjectArchive.ENDING);
        String kind = isProject ? TAKE_PROJECT : kind(materials, update, late, beside);
        try (Spool body = Spool.of(request.getInputStream(), limit)) {
            return imports.receive(account.id(), kind, project, name, body);
        }
    }

    private static String kind(boolean materials, boolean update, boolean late, @Nullable Belonging beside) {
        if (late) {
            return LateFilesWork.KIND;
        }
        if (materials) {
            return MaterialsWork.KIND;
        }
        if (update) {
            return UpdateWork.KIND;
        }
        return beside == null ? ImportWork.KIND : AddModelWork.kind(beside);
    }

    /** What was uploaded to make the project, so that it can be cut into triangles again. */
    @GetMapping("/api/projects/{id}/upload")
    ResponseEntity<StreamingResponseBody> uploaded(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        projects.require(account, id);
        String sha256 = store.requireCut(id);
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType("application/zip"))
                .body(out -> assets.copy(sha256, out));
    }

    @GetMapping("/api/projects/{id}/scene")
    Scene scene(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        projects.require(account, id);
        return store.pictured(id);
    }

    @GetMapping("/api/projects/{id}/findings")
    Findings findings(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        Project project = projects.require(account, id);
        return store.findings(id).in(project.unit());
    }

    /** What parts without a role may be in the design, for the designer to confirm; those too little is known of are left out. */
    @GetMapping("/api/projects/{id}/roles")
    List<Roles.RoleGroup> roles(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        projects.require(account, id);
        return survey.roles(id);
    }

    /** Has the model looked through again. */
    @PostMapping("/api/projects/{id}/findings")
    @ResponseStatus(HttpStatus.ACCEPTED)
    Job inspect(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        Project project = projects.require(account, id);
        return jobs.submit(account.id(), InspectWork.KIND, project.name(), store.original(id), id);
    }

    /**
     * A format that the model can be written in.
     *
     * @param losses what it cannot carry of this model, as sentences
     */
    record ExportFormat(String format, String ending, boolean zipped, List<String> losses) {}

    @GetMapping("/api/projects/{id}/exports")
    List<ExportFormat> exports(Query query) {
        DressedModel dressed = dressed(query, projects.require(query.account(), query.project()));
        return ModelFormats.writers().stream()
                .map(w -> new ExportFormat(
                        w.kind().name(), w.kind().ending(), w.kind().isBundle(), w.losses(dressed)))
                .toList();
    }

    /** The design in a format, with the looks it shows now; surroundings stay. */
    @GetMapping("/api/projects/{id}/exports/{ending}")
    ResponseEntity<StreamingResponseBody> export(Query query, @PathVariable String ending) {
        Project project = projects.require(query.account(), query.project());
        ModelWriter writer = ModelFormats.writer(ending).orElseThrow(() -> Problem.notFound("format"));
        DressedModel dressed = grown(dressed(query, project));
        ContentDisposition attachment = ContentDisposition.attachment()
                .filename(
                        project.name() + "." + (writer.kind().isBundle() ? ending + ".zip" : ending),
                        StandardCharsets.UTF_8)
                .build();
        String base = project.name().replaceAll("[^\\p{L}\\p{N} ._-]", "_");
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_DISPOSITION, attachment.toString())
                .contentType(MediaType.parseMediaType(
                        writer.kind().isBundle()
                                ? "application/zip"
                                : writer.kind().mediaType()))
                .body(out -> {
                    if (writer.kind().isBundle()) {
                        ModelFormats.zip(writer, dressed, base, out);
                    } else {
                        writer.write(dressed, base, (path, content) -> content.writeTo(out));
                    }
                });
    }

    private static DressedModel grown(DressedModel dressed) {
        try {
            return dressed.grown();
        } catch (TooManyLeaves e) {
            throw Problem.of(HttpStatus.UNPROCESSABLE_CONTENT, "too-many-leaves", e.getMessage());
        }
    }

    private DressedModel dressed(Query query, Project project) {
        LookTable looks = schemes.looks(project, query);
        return models.of(project.name(), looks);
    }
}
