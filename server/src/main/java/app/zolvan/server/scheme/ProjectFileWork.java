package app.zolvan.server.scheme;

import app.zolvan.core.assign.Side;
import app.zolvan.core.exchange.TooManyLeaves;
import app.zolvan.core.exchange.gltf.GltfWriter;
import app.zolvan.core.exchange.project.ProjectArchive;
import app.zolvan.server.account.AccountService;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.asset.Spool;
import app.zolvan.server.job.JobOrder;
import app.zolvan.server.job.JobProgress;
import app.zolvan.server.job.JobWork;
import app.zolvan.server.model.DressedModels;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.ProjectService;
import app.zolvan.server.view.ViewMapper;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Objects;
import java.util.UUID;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** The job that writes a project file. */
@Component
class ProjectFileWork implements JobWork {
    static final String KIND = "project-file";
    private static final double GATHERED = 0.05;
    private static final double ASSETS = 0.5;

    private final ProjectContentsService contents;
    private final ProjectService projects;
    private final AccountService accounts;
    private final AssetService assets;
    private final SchemeService schemes;
    private final DressedModels models;
    private final ViewMapper views;
    private final JsonMapper json;

    ProjectFileWork(
            ProjectContentsService contents,
            ProjectService projects,
            AccountService accounts,
            AssetService assets,
            SchemeService schemes,
            DressedModels models,
            ViewMapper views,
            JsonMapper json) {
        this.contents = contents;
        this.projects = projects;
        this.accounts = accounts;
        this.assets = assets;
        this.schemes = schemes;
        this.models = models;
        this.views = views;
        this.json = json;
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public String name() {
        return "Project file";
    }

    @Override
    public int priority() {
        return 5;
    }

    @Override
    public boolean mayPause() {
        return true;
    }

    @Override
    public UUID run(JobOrder order, JobProgress progress) throws IOException {
        UUID id = Objects.requireNonNull(order.subject());
        Project project = projects.require(accounts.require(order.account()), id);
        progress.at(0, "Gathering what the project holds");
        ProjectContents all = contents.of(project);
        Path file = Files.createTempFile("zolvan-project", ProjectArchive.ENDING);
        try {
            try (ZipOutputStream zip = new ZipOutputStream(new BufferedOutputStream(Files.newOutputStream(file)))) {
                write(project, all, zip, progress);
            }
            try (InputStream in = Files.newInputStream(file);
                    Spool spool = Spool.of(in, Long.MAX_VALUE)) {
                String asset = assets.store(spool, "application/zip");
                progress.result(0, fileName(project.name()), "application/zip", asset);
            }
        } finally {
            Files.deleteIfExists(file);
        }
        return id;
    }

    private static String fileName(String project) {
        return project.replaceAll("[^\\p{L}\\p{N} ._-]", "_") + ProjectArchive.ENDING;
    }

    private void write(Project project, ProjectContents all, ZipOutputStream zip, JobProgress progress)
            throws IOException {
        entry(
                zip,
                ProjectArchive.CONTENTS,
                json.writerWithDefaultPrettyPrinter().writeValueAsBytes(all));
        long bytes = Math.max(
                1, all.assets().stream().mapToLong(ProjectContents.Held::bytes).sum());
        long done = 0;
        for (ProjectContents.Held held : all.assets()) {
            progress.at(GATHERED + (ASSETS - GATHERED) * done / bytes, "Packing shapes and pictures");
            zip.putNextEntry(new ZipEntry(ProjectArchive.ASSETS + held.sha256()));
            assets.copy(held.sha256(), zip);
            zip.closeEntry();
            done += held.bytes();
        }
        for (UUID view : all.views()) {
            entry(
                    zip,
                    ProjectContentsService.view(view),
                    views.picture(project.id(), view).orElseThrow().jpeg());
        }
        List<SchemeMapper.SchemeRow> rows = schemes.schemes(project.id());
        for (int i = 0; i < rows.size(); i++) {
            SchemeMapper.SchemeRow scheme = rows.get(i);
            progress.at(ASSETS + (1 - ASSETS) * i / rows.size(), "Writing scheme " + scheme.letter());
            zip.putNextEntry(new ZipEntry(ProjectArchive.LOOKS + scheme.letter() + ".glb"));
            try {
                GltfWriter.write(
                        models.of(project.name(), schemes.looks(project, scheme.id(), Side.FRONT))
                                .grown(),
                        unclosed(zip));
            } catch (TooManyLeaves e) {
                throw Problem.of(HttpStatus.UNPROCESSABLE_CONTENT, "too-many-leaves", e.getMessage());
            }
            zip.closeEntry();
        }
    }

    private static void entry(ZipOutputStream zip, String path, byte[] content) throws IOException {
        zip.putNextEntry(new ZipEntry(path));
        zip.write(content);
        zip.closeEntry();
    }

    /** A stream whose closing leaves the zip open. */
    private static OutputStream unclosed(ZipOutputStream zip) {
        return new OutputStream() {
            @Override
            public void write(int b) throws IOException {
                zip.write(b);
            }

            @Override
            public void write(byte[] b, int from, int count) throws IOException {
                zip.write(b, from, count);
            }
        };
    }

    @Override
    public void ended() {
        assets.deleteUnused();
    }
}
