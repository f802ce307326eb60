package app.zolvan.server.asset;

import app.zolvan.core.model.Digest;
import app.zolvan.core.texture.ImageHeader;
import app.zolvan.core.texture.Picture;
import app.zolvan.core.texture.Picture.Holds;
import app.zolvan.server.problem.Problem;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Immutable bytes addressed by their SHA-256, in and out by chunks of 1 MiB, never whole in memory on their way. */
@Service
public class AssetService {
    /** What is no picture: uploads and meshes. */
    public static final String BINARY = "application/octet-stream";

    private static final String IMAGE = "image/";
    private static final int CHUNK = 1 << 20;

    /** Larger pictures of relief are looked at more coarsely. */
    private static final int RELIEF_PIXELS = 1 << 22;

    private final AssetMapper mapper;
    private final Cache<String, FineReliefWire> reliefs =
            Caffeine.newBuilder().maximumSize(1_000).build();

    AssetService(AssetMapper mapper) {
        this.mapper = mapper;
    }

    /**
     * Stores spooled bytes; the same bytes are stored once. Whoever stores must refer to the bytes within the same
     * transaction: after it they may be removed as unused.
     *
     * @return the SHA-256 of the bytes
     */
    @Transactional
    public String store(Spool spool, String mediaType) throws IOException {
        mapper.keepAll();
        Optional<Long> id = mapper.begin(spool.sha256(), spool.size(), mediaType);
        if (id.isPresent()) {
            addChunks(id.get(), spool.read());
            measure(find(spool.sha256()));
        }
        return spool.sha256();
    }

    private void addChunks(long id, InputStream in) throws IOException {
        byte[] buffer = new byte[CHUNK];
        int seq = 0;
        for (int n = in.readNBytes(buffer, 0, CHUNK); n > 0; n = in.readNBytes(buffer, 0, CHUNK)) {
            mapper.addChunk(id, seq++, n == CHUNK ? buffer : Arrays.copyOf(buffer, n));
        }
    }

    public static Problem tooLarge(long limit) {
        return Problem.of(
                HttpStatus.CONTENT_TOO_LARGE,
                "too-large",
                "The file is larger than " + (limit >> 20)
                        + " MB, the most Zolvan takes. Export it in parts, or with a coarser setting.");
    }

    /** An upload of bytes in memory. */
    @Transactional
    public String store(byte[] bytes, String mediaType) {
        String sha256 = Digest.of(bytes);
        mapper.keepAll();
        Optional<Long> id = mapper.begin(sha256, bytes.length, mediaType);
        if (id.isPresent()) {
            try {
                addChunks(id.get(), new ByteArrayInputStream(bytes));
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
            measure(find(sha256));
        } else if (find(sha256).mediaType().equals(BINARY) && !mediaType.equals(BINARY)) {
            mapper.setMediaType(sha256, mediaType); // uploaded as a file; by now it is known what it is
            measure(find(sha256));
        }
        return sha256;
    }

    /** Writes an asset's bytes out, a chunk at a time. */
    public void copy(String sha256, OutputStream out) throws IOException {
        AssetMapper.Row row = find(sha256);
        int chunks = (int) ((row.size() + CHUNK - 1) / CHUNK);
        for (int seq = 0; seq < chunks; seq++) {
            out.write(mapper.chunk(row.id(), seq).bytes());
        }
    }

    /** An asset's bytes; for meshes and textures, which are bounded at import. */
    public byte[] bytes(String sha256) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            copy(sha256, out);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    /** How far the slopes of a picture of normals spread in its halved copies. */
    FineReliefWire relief(String sha256) {
        if (!find(sha256).mediaType().startsWith(IMAGE)) {
            throw Problem.notFound("picture");
        }
        return reliefs.get(sha256, digest -> {
            try {
                return FineReliefWire.of(Picture.decode(bytes(digest), Holds.NORMALS, RELIEF_PIXELS));
            } catch (IOException e) {
                throw Problem.of(
                        HttpStatus.UNPROCESSABLE_CONTENT,
                        "no-picture",
                        "A picture of relief can’t be read: it is damaged, or no PNG or JPEG. Bring it anew as PNG.");
            }
        });
    }

    AssetMapper.Row find(String sha256) {
        return mapper.find(sha256).orElseThrow(() -> Problem.notFound("file"));
    }

    public void addToProject(UUID projectId, String sha256) {
        mapper.addToProject(projectId, sha256);
    }

    /** Takes everything that is no picture from a project: what was uploaded, and every mesh that it has or had. */
    public void takeShapesFromProject(UUID projectId) {
        mapper.takeKindFromProject(projectId, BINARY);
    }

    /** What a project's asset is and takes. */
    public record Stored(String sha256, long bytes, String mediaType) {}

    /** @throws Problem where there is no such asset */
    public Stored stored(String sha256) {
        AssetMapper.Row row = find(sha256);
        return new Stored(row.sha256(), row.size(), row.mediaType());
    }

    /** A project's own assets, the largest first. */
    public List<Stored> ofProject(UUID projectId) {
        return mapper.ofProject(projectId).stream()
                .map(r -> new Stored(r.sha256(), r.size(), r.mediaType()))
                .toList();
    }

    /** A picture of a project, with what is known of it without reading it whole. */
    public record PictureFile(String sha256, long bytes, ImageHeader header) {}

    /** A project's own pictures, the largest file first. */
    public List<PictureFile> pictures(UUID projectId) {
        List<PictureFile> out = new ArrayList<>();
        for (AssetMapper.Row r : mapper.ofProject(projectId)) {
            if (r.mediaType().startsWith(IMAGE)) {
                header(r).ifPresent(h -> out.add(new PictureFile(r.sha256(), r.size(), h)));
            }
        }
        return out;
    }

    private Optional<ImageHeader> header(AssetMapper.Row row) {
        if (row.width() == null) {
            return readHeader(row);
        }
        return row.width() == 0
                ? Optional.empty()
                : Optional.of(new ImageHeader(row.mediaType(), row.width(), row.height()));
    }

    /** Format and size in pixels from a picture's first bytes; empty for what is no picture. */
    private Optional<ImageHeader> readHeader(AssetMapper.Row row) {
        AssetMapper.Chunk first = mapper.chunk(row.id(), 0);
        if (first == null) {
            return Optional.empty();
        }
        Optional<ImageHeader> read = ImageHeader.read(ByteBuffer.wrap(first.bytes()));
        return read.isEmpty() && row.size() > CHUNK
                ? ImageHeader.read(ByteBuffer.wrap(bytes(row.sha256()))) // much may stand before a JPEG's frame
                : read;
    }

    /** Keeps the sizes in pixels of pictures that were stored before sizes were kept. */
    @Transactional
    public void measurePictures() {
        mapper.unmeasured().forEach(this::measure);
    }

    private void measure(AssetMapper.Row row) {
        if (row.mediaType().startsWith(IMAGE)) {
            Optional<ImageHeader> read = readHeader(row);
            mapper.setSize(
                    row.id(),
                    read.map(ImageHeader::width).orElse(0),
                    read.map(ImageHeader::height).orElse(0));
        }
    }

    /** Has an asset of a project shown nowhere, or again; its bytes stay. */
    public void setRemoved(UUID projectId, String sha256, boolean removed) {
        mapper.setRemoved(projectId, sha256, removed);
    }

    /** Whether an asset of a project is there and has not been removed. */
    public boolean isShown(UUID projectId, String sha256) {
        return mapper.isShown(projectId, sha256);
    }

    /** @param library null for the one that ships */
    public void addToLibrary(String sha256, @Nullable UUID library) {
        mapper.addToLibrary(sha256, library);
    }

    /** Takes from a library what it shows no more. */
    public void keepInLibrary(UUID library, Collection<String> shown) {
        mapper.takeFromLibrary(library, shown.toArray(String[]::new));
    }

    /** How many bytes would be free if a library let go of some assets. */
    public long sizeOfThoseOnlyIn(UUID library, Collection<String> some) {
        return some.isEmpty() ? 0 : mapper.sizeOfThoseOnlyIn(library, some.toArray(String[]::new));
    }

    /** True where an account that may see the project may read the asset. */
    public boolean isReadable(UUID account, UUID projectId, String sha256) {
        return isInProject(projectId, sha256) || mapper.isInLibraryOf(account, sha256);
    }

    public boolean isInProject(UUID projectId, String sha256) {
        return mapper.isInProject(projectId, sha256);
    }

    public boolean isInLibrary(String sha256) {
        return mapper.isInLibrary(sha256);
    }

    /** Removes what no project, library or waiting job refers to. */
    @Transactional
    public int deleteUnused() {
        mapper.lockForDeleting();
        return mapper.deleteUnused().size();
    }
}
