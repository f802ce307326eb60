package app.zolvan.server.scheme;

import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Map;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Ids of a project file's own things, which become others in each project that is made of it. */
final class ProjectIds {
    private static final Pattern ID =
            Pattern.compile("[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}", Pattern.CASE_INSENSITIVE);

    private ProjectIds() {}

    /**
     * The same text with the ids of the project, its materials and its schemes replaced; what is numbered within the project
     * keeps its own. The same project gives the same ids.
     */
    static String anew(String text, ProjectContents contents, UUID project) {
        Map<UUID, UUID> ids = new HashMap<>();
        ids.put(contents.id(), project);
        for (Change c : contents.changes()) {
            if (c instanceof Change.OfMaterial m) {
                ids.put(m.id(), anew(m.id(), project));
            } else if (c instanceof Change.OfScheme s) {
                ids.put(s.id(), anew(s.id(), project));
            }
        }
        Matcher found = ID.matcher(text);
        return found.replaceAll(m -> {
            UUID old = UUID.fromString(m.group());
            return ids.containsKey(old) ? ids.get(old).toString() : m.group();
        });
    }

    private static UUID anew(UUID id, UUID project) {
        return UUID.nameUUIDFromBytes((project + " " + id).getBytes(StandardCharsets.UTF_8));
    }
}
