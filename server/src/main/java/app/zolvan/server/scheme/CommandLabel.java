package app.zolvan.server.scheme;

import app.zolvan.core.adjust.Control;
import java.util.Map;

/** Says in words what a change of values does, for the history. */
final class CommandLabel {
    private CommandLabel() {}

    static String of(Map<String, Object> values) {
        String first = values.keySet().iterator().next();
        String name = Control.ALL.stream()
                .filter(c -> c.name().equals(first))
                .findFirst()
                .map(Control::label)
                .orElseGet(() -> wish(first));
        return values.size() > 1 ? name + " and more" : name;
    }

    private static String wish(String key) {
        return switch (key) {
            case "sub_kind" -> "Finish";
            case "follow" -> "Followed colour";
            case "elsewhere" -> "Values from elsewhere";
            case "picture" -> "Picture";
            case "tone" -> "Picture’s colours";
            case "plain" -> "Picture taken off";
            case "whole" -> "Look put back";
            default -> Character.toUpperCase(key.charAt(0)) + key.substring(1).replace('_', ' ');
        };
    }
}
