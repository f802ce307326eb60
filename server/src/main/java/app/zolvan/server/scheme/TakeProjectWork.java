package app.zolvan.server.scheme;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ImportLimits;
import app.zolvan.core.exchange.ModelReader;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.project.ProjectArchive;
import app.zolvan.core.model.Digest;
import app.zolvan.core.texture.ImageHeader;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.asset.Quota;
import app.zolvan.server.job.JobOrder;
import app.zolvan.server.job.JobProgress;
import app.zolvan.server.job.JobWork;
import app.zolvan.server.model.UploadedFile;
import app.zolvan.server.project.ProjectService;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Objects;
import java.util.Set;
import java.util.UUID;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.stereotype.Component;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/** The job that makes a project of a project file, with ids of its own. */
@Component
class TakeProjectWork implements JobWork {
    static final String KIND = "take-project";
    private static final double READ = 0.8;
    private static final long LARGEST_VIEW = 2 << 20;
    private static final Set<String> PICTURES = Set.of("image/png", "image/jpeg", "image/webp");

    private final AssetService assets;
    private final ProjectContentsService contents;
    private final ProjectService projects;
    private final Quota quota;
    private final JsonMapper json;

    TakeProjectWork(
            AssetService assets,
            ProjectContentsService contents,
            ProjectService projects,
            Quota quota,
            JsonMapper json) {
        this.assets = assets;
        this.contents = contents;
        this.projects = projects;
        this.quota = quota;
        this.json = json;
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public String name() {
        return "Project from a file";
    }

    @Override
    public int priority() {
        return 10;
    }

    @Override
    public UUID run(JobOrder order, JobProgress progress) throws ImportException, IOException {
        UUID project = order.job();
        if (projects.find(project).isPresent()) {
            return project; // made by a run that ended before it could say so
        }
        try (UploadedFile file = UploadedFile.of(assets, Objects.requireNonNull(order.asset()));
                FileChannel channel = FileChannel.open(Path.of(file.path()))) {
            ByteBuffer bytes = channel.map(FileChannel.MapMode.READ_ONLY, 0, channel.size());
            Reading reading = new Reading(ImportLimits.STANDARD, ModelReader.Progress.NONE, null, null);
            ProjectArchive archive = ProjectArchive.open(bytes, reading);
            ProjectContents all = read(archive.contents(), project);
            check(archive, all, order.account(), reading, progress);
            progress.at(READ, "Making the project");
            contents.create(project, order.account(), all, path -> bytes(archive, path, reading));
            return project;
        } catch (DataIntegrityViolationException e) {
            throw ProjectContentsService.damaged("its things contradict each other");
        }
    }

    private ProjectContents read(byte[] text, UUID project) throws ImportException {
        try {
            ProjectContents there = json.readValue(text, ProjectContents.class);
            String own = ProjectIds.anew(new String(text, StandardCharsets.UTF_8), there, project);
            ProjectContents all = json.readValue(own, ProjectContents.class);
            if (all.changes() == null || all.assets() == null || all.model() == null || all.views() == null) {
                throw ProjectContentsService.damaged("something in it is missing");
            }
            return all;
        } catch (JacksonException e) {
            throw ProjectContentsService.damaged("what it holds can’t be read");
        }
    }

    private void check(ProjectArchive archive, ProjectContents all, UUID account, Reading reading, JobProgress progress)
            throws ImportException {
        quota.require(
                account,
                all.assets().stream().mapToLong(ProjectContents.Held::bytes).sum());
        int done = 0;
        for (ProjectContents.Held held : all.assets()) {
            progress.at(READ * done++ / all.assets().size(), "Reading shapes and pictures");
            byte[] bytes = bytes(archive, ProjectArchive.ASSETS + held.sha256(), reading);
            boolean isPicture = PICTURES.contains(held.mediaType());
            boolean fits = bytes.length == held.bytes()
                    && Digest.of(bytes).equals(held.sha256())
                    && (isPicture
                            ? ImageHeader.read(ByteBuffer.wrap(bytes)).isPresent()
                            : held.mediaType().equals(AssetService.BINARY));
            if (!fits) {
                throw ProjectContentsService.damaged("a shape or picture is not what it says");
            }
        }
        for (UUID view : all.views()) {
            byte[] jpeg = bytes(archive, ProjectContentsService.view(view), reading);
            if (jpeg.length > LARGEST_VIEW
                    || ImageHeader.read(ByteBuffer.wrap(jpeg)).isEmpty()) {
                throw ProjectContentsService.damaged("the picture of a view is none");
            }
        }
    }

    private static byte[] bytes(ProjectArchive archive, String path, Reading reading) throws ImportException {
        ByteBuffer content = archive.open(path, reading)
                .orElseThrow(() -> ProjectContentsService.damaged("“" + path + "” is missing"));
        byte[] bytes = new byte[content.remaining()];
        content.get(bytes);
        reading.release(content.isDirect() ? 0 : bytes.length);
        return bytes;
    }

    @Override
    public void ended() {
        assets.deleteUnused();
    }
}
