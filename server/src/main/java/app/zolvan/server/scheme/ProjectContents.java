package app.zolvan.server.scheme;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import java.util.List;
import java.util.UUID;
import tools.jackson.databind.JsonNode;

/**
 * What {@code project.json} of a project file holds: the model as it is stored, and the changes that put on it all that a
 * designer has. Both are kept in projects' histories in the same form, so that older ones stay readable.
 *
 * @param version  of this form
 * @param id       of the project that it was written from
 * @param unit     symbol of the length unit
 * @param schemes  letters, in their order
 * @param model    as {@code model.ModelRows} has it
 * @param ownFaces names of faces that designers cut, by their numbers
 * @param changes  with nothing before them, in an order in which they can be done
 * @param assets   everything under {@code assets/}
 * @param views    of which there are small pictures under {@code views/}
 */
@JsonIgnoreProperties(ignoreUnknown = true)
record ProjectContents(
        String format,
        int version,
        UUID id,
        String name,
        String client,
        String unit,
        List<String> schemes,
        JsonNode model,
        List<String> ownFaces,
        List<Change> changes,
        List<Held> assets,
        List<UUID> views) {

    record Held(String sha256, String mediaType, long bytes) {}
}
