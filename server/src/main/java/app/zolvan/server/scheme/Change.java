package app.zolvan.server.scheme;

import app.zolvan.core.assign.Level;
import app.zolvan.core.assign.Side;
import app.zolvan.core.assign.Slot;
import app.zolvan.core.model.LengthUnit;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.light.LightRow;
import app.zolvan.server.model.PartState;
import app.zolvan.server.model.PlacedState;
import app.zolvan.server.view.ViewRow;
import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** One change of a command: a thing's state before and after, null where it did not or does not exist. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "type")
@JsonSubTypes({
    @JsonSubTypes.Type(value = Change.OfEntry.class, name = "entry"),
    @JsonSubTypes.Type(value = Change.OfScheme.class, name = "scheme"),
    @JsonSubTypes.Type(value = Change.OfCandidate.class, name = "candidate"),
    @JsonSubTypes.Type(value = Change.OfMaterial.class, name = "material"),
    @JsonSubTypes.Type(value = Change.OfProject.class, name = "project"),
    @JsonSubTypes.Type(value = Change.OfPart.class, name = "part"),
    @JsonSubTypes.Type(value = Change.OfSet.class, name = "set"),
    @JsonSubTypes.Type(value = Change.OfFace.class, name = "face"),
    @JsonSubTypes.Type(value = Change.OfView.class, name = "view"),
    @JsonSubTypes.Type(value = Change.OfLight.class, name = "light"),
    @JsonSubTypes.Type(value = Change.OfNote.class, name = "note"),
    @JsonSubTypes.Type(value = Change.OfModel.class, name = "model"),
    @JsonSubTypes.Type(value = Change.OfPlaced.class, name = "placed"),
    @JsonSubTypes.Type(value = Change.OfImage.class, name = "image")
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
        Slot slot() {
            return LookTable.slot(Level.valueOf(level), target, Side.valueOf(side));
        }

        @Override
        public Change inverse() {
            return new OfEntry(scheme, level, target, side, after, before);
        }
    }

    /** A scheme itself, without what its slots hold. */
    record OfScheme(UUID id, SchemeMapper.@Nullable SchemeRow before, SchemeMapper.@Nullable SchemeRow after)
            implements Change {
        @Override
        public Change inverse() {
            return new OfScheme(id, after, before);
        }
    }

    /** Whether a material is kept on a target to choose from, and after which others: its position before and after. */
    record OfCandidate(
            String level,
            int target,
            UUID material,
            @Nullable Integer before,
            @Nullable Integer after) implements Change {
        @Override
        public Change inverse() {
            return new OfCandidate(level, target, material, after, before);
        }
    }

    record OfMaterial(
            UUID id, @Nullable MaterialRow before, @Nullable MaterialRow after) implements Change {
        @Override
        public Change inverse() {
            return new OfMaterial(id, after, before);
        }

        /** Whether what wears it looks different from then on. */
        boolean isAnotherLook() {
            return before != null && after != null && !before.surface().equals(after.surface());
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

    /** The whole model, as it was kept before and after. */
    record OfModel(String before, String after) implements Change {
        @Override
        public Change inverse() {
            return new OfModel(after, before);
        }
    }

    /** One of the project's models. */
    record OfPlaced(int model, PlacedState before, PlacedState after) implements Change {
        @Override
        public Change inverse() {
            return new OfPlaced(model, after, before);
        }
    }

    /** Whether an image of the project is shown anywhere. */
    record OfImage(String sha256, boolean before, boolean after) implements Change {
        @Override
        public Change inverse() {
            return new OfImage(sha256, after, before);
        }
    }

    /** The name of a matching set. */
    record OfSet(int set, String before, String after) implements Change {
        @Override
        public Change inverse() {
            return new OfSet(set, after, before);
        }
    }

    /** The name of a face that a designer cut. */
    record OfFace(int face, String before, String after) implements Change {
        @Override
        public Change inverse() {
            return new OfFace(face, after, before);
        }
    }

    /** A named view. */
    record OfView(
            UUID id, @Nullable ViewRow before, @Nullable ViewRow after) implements Change {
        @Override
        public Change inverse() {
            return new OfView(id, after, before);
        }
    }

    /** A light set-up. */
    record OfLight(
            UUID id, @Nullable LightRow before, @Nullable LightRow after) implements Change {
        @Override
        public Change inverse() {
            return new OfLight(id, after, before);
        }
    }

    /** What was left open. */
    record OfNote(UUID id, NoteMapper.@Nullable NoteRow before, NoteMapper.@Nullable NoteRow after) implements Change {
        @Override
        public Change inverse() {
            return new OfNote(id, after, before);
        }
    }

    /** What a designer can change about a project itself. */
    record Details(String name, String client, LengthUnit unit) {}
}
