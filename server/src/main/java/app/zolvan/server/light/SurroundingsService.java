package app.zolvan.server.light;

import app.zolvan.core.light.BrightPatches;
import app.zolvan.core.light.Environment;
import app.zolvan.core.light.RadianceHdr;
import app.zolvan.server.problem.Problem;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.io.IOException;
import java.io.UncheckedIOException;
import org.springframework.core.io.ClassPathResource;
import org.springframework.stereotype.Service;

/** The supplied pictures of surroundings. */
@Service
public class SurroundingsService {
    private static final int MOST_KEPT = 2;
    /** Of patches, which are small. */
    private static final int MOST_PARTED = 40;

    private final Cache<String, Environment> pictures =
            Caffeine.newBuilder().maximumSize(MOST_KEPT).build();
    private final Cache<String, BrightPatches> parted =
            Caffeine.newBuilder().maximumSize(MOST_PARTED).build();

    /** @throws Problem if there are none of that name */
    public Environment picture(String name) {
        return pictures.get(name, n -> {
            ClassPathResource file = new ClassPathResource("META-INF/resources/environments/" + n + ".hdr");
            if (!n.matches("[a-z-]{1,40}") || !file.exists()) {
                throw Problem.ofField("surroundings", "There are no such surroundings. Choose some under Light.");
            }
            try {
                return RadianceHdr.read(file.getContentAsByteArray());
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        });
    }

    BrightPatches parted(String name) {
        return parted.get(name, n -> BrightPatches.of(picture(n)));
    }
}
