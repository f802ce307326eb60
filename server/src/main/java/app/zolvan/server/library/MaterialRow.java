package app.zolvan.server.library;

import app.zolvan.core.adjust.Following;
import app.zolvan.core.colour.Shade;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.json.JsonText;
import app.zolvan.core.exchange.json.JsonValue;
import app.zolvan.core.exchange.library.MaterialJson;
import app.zolvan.core.material.Facts;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.MaterialKind;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.Objects;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * A material as stored.
 *
 * @param projectId null for a library's
 * @param origin    the material it was made from
 * @param parent    the project's material that it is a variation of
 * @param own       of a variation, the parameters that are its own, with spaces between
 * @param arrived   whether it came with the file
 * @param surface   JSON as {@link MaterialJson} writes it; of a variation, what it shows
 * @param facts     JSON as {@link FactsWire} writes it; null where nothing is known
 * @param libraryId of a library's, which; null for the one that ships
 * @param colourOf  the project's material whose colour this one's follows
 * @param shade     which shade of it this one's is, as {@link Shade} has it; null where it follows none
 */
public record MaterialRow(
        UUID id,
        @Nullable UUID projectId,
        @Nullable UUID origin,
        @Nullable UUID parent,
        @Nullable String own,
        boolean arrived,
        String code,
        String name,
        @Nullable String kind,
        String surface,
        int position,
        @Nullable String facts,
        @Nullable UUID libraryId,
        @Nullable UUID colourOf,
        @Nullable Double shade) {
    private static final Cache<String, Surface> READ =
            Caffeine.newBuilder().maximumSize(2_000).build();

    public Material toMaterial() {
        return new Material(code, name, kind == null ? null : MaterialKind.ofWord(kind), toSurface());
    }

    public Surface toSurface() {
        return read(surface);
    }

    public static Surface read(String surface) {
        return READ.get(surface, MaterialRow::parsed);
    }

    private static Surface parsed(String surface) {
        try {
            return MaterialJson.read(JsonValue.parse(surface.getBytes(StandardCharsets.UTF_8)));
        } catch (ImportException e) {
            throw new IllegalStateException("a stored surface can't be read", e);
        }
    }

    /** A copy without an origin. */
    public MaterialRow withoutOrigin() {
        return new MaterialRow(
                id, projectId, null, parent, own, arrived, code, name, kind, surface, position, facts, libraryId,
                colourOf, shade);
    }

    public MaterialRow with(String newName, Surface newSurface) {
        return with(newName, kind, newSurface);
    }

    /** The same material with another look, and perhaps of another kind. */
    public MaterialRow with(Material m) {
        return with(name, m.kind() == null ? null : m.kind().word(), m.surface());
    }

    private MaterialRow with(String newName, @Nullable String newKind, Surface s) {
        return new MaterialRow(
                id, projectId, origin, parent, own, arrived, code, newName, newKind, json(s), position, facts,
                libraryId, colourOf, shade);
    }

    /** A variation of another of the project's materials, or none where that is null. */
    public MaterialRow variationOf(@Nullable UUID other, Set<Parameter> ownParameters) {
        String names = other == null
                ? null
                : ownParameters.stream().map(Parameter::openPbrName).collect(Collectors.joining(" "));
        return new MaterialRow(
                id, projectId, origin, other, names, arrived, code, name, kind, surface, position, facts, libraryId,
                colourOf, shade);
    }

    /** One whose colour follows that of another of the project's materials, or none where that is null. */
    public MaterialRow colouredBy(@Nullable UUID other, @Nullable Shade as) {
        return new MaterialRow(
                id,
                projectId,
                origin,
                parent,
                own,
                arrived,
                code,
                name,
                kind,
                surface,
                position,
                facts,
                libraryId,
                other,
                as == null ? null : as.share());
    }

    /** Whether it is one of those that ship. */
    public boolean isShipped() {
        return projectId == null && libraryId == null;
    }

    /** What a library keeps of it. */
    MaterialRow kept(UUID newId, UUID library, String newCode, int newPosition) {
        return new MaterialRow(
                newId,
                null,
                null,
                null,
                null,
                false,
                newCode,
                name,
                kind,
                surface,
                newPosition,
                facts,
                library,
                null,
                null);
    }

    /** The same look made of something else. */
    public MaterialRow made(Facts other) {
        String json = other.equals(Facts.NONE) ? null : FactsWire.json(other);
        return new MaterialRow(
                id, projectId, origin, parent, own, arrived, code, name, kind, surface, position, json, libraryId,
                colourOf, shade);
    }

    /** What is known of it. */
    public Facts known() {
        FactsWire wire = FactsWire.of(facts);
        return wire == null ? Facts.NONE : wire.facts();
    }

    public Set<Parameter> ownParameters() {
        Set<Parameter> all = EnumSet.noneOf(Parameter.class);
        if (own != null && !own.isEmpty()) {
            Arrays.stream(own.split(" ")).map(Parameter::named).forEach(p -> p.ifPresent(all::add));
        }
        return all;
    }

    /** Whom it follows, and in what. */
    public Following.Member<UUID> following() {
        Shade as = colourOf == null ? null : new Shade(shade);
        return new Following.Member<>(id, toSurface(), parent, ownParameters(), colourOf, as);
    }

    /** The same values, whatever the order in which JSON lists them. */
    public boolean isSame(@Nullable MaterialRow o) {
        return o != null
                && id.equals(o.id)
                && name.equals(o.name)
                && code.equals(o.code)
                && Objects.equals(kind, o.kind)
                && Objects.equals(parent, o.parent)
                && Objects.equals(colourOf, o.colourOf)
                && Objects.equals(shade, o.shade)
                && ownParameters().equals(o.ownParameters())
                && known().equals(o.known())
                && toSurface().equals(o.toSurface());
    }

    public static String json(Surface surface) {
        return new String(JsonText.utf8(MaterialJson.write(surface)), StandardCharsets.UTF_8);
    }
}
