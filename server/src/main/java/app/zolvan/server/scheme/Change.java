package app.zolvan.server.scheme;

import app.zolvan.core.model.LengthUnit;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.model.PartState;
import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** One change of a command: a thing's state before and after, null where it did not or does not exist. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "type")
@JsonSubTypes({
    @JsonSubTypes.Type(value = Change.OfEntry.class, name = "entry"),
    @JsonSubTypes.Type(value = Change.OfMaterial.class, name = "material"),
    @JsonSubTypes.Type(value = Change.OfProject.class, name = "project"),
    @JsonSubTypes.Type(value = Change.OfPart.class, name = "part")
})
sealed interface Change {

    /** The same change the other way round. */
    Change inverse();

    record OfEntry(
            UUID scheme,
            String level,
            int target,
            String side,
            SchemeMapper.@Nullable EntryRow before,
            SchemeMapper.@Nullable EntryRow after)
            implements Change {
        @Override
        public Change inverse() {
            return new OfEntry(scheme, level, target, side, after, before);
        }
    }

    record OfMaterial(
            UUID id, @Nullable MaterialRow before, @Nullable MaterialRow after) implements Change {
        @Override
        public Change inverse() {
            return new OfMaterial(id, after, before);
        }
    }

    record OfProject(Details before, Details after) implements Change {
        @Override
        public Change inverse() {
            return new OfProject(after, before);
        }
    }

    record OfPart(int part, PartState before, PartState after) implements Change {
        @Override
        public Change inverse() {
            return new OfPart(part, after, before);
        }
    }

    /** What a designer can change about a project itself. */
    record Details(String name, String client, LengthUnit unit) {}
}
