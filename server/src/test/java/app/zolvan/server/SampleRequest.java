package app.zolvan.server;

import static java.util.Map.entry;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.UUID;
import tools.jackson.databind.JsonNode;

/** Requests that an endpoint can read, made of what the OpenAPI document says of its body and its parameters. */
final class SampleRequest {
    private static final String ID = UUID.nameUUIDFromBytes(new byte[] {1}).toString();

    /** Values of what the document describes by its type alone, by their names. */
    private static final Map<String, Object> KNOWN = Map.ofEntries(
            entry("level", "part"),
            entry("targets", List.of(0)),
            entry("unit", "mm"),
            entry("to", "own"),
            entry("turn", "flip"),
            entry("act", "flip"),
            entry("eye", List.of(0, 0, 5)),
            entry("degrees", 40.0),
            entry("scale", 1.0),
            entry("width", 64),
            entry("height", 64),
            entry("strength", 1.0),
            entry("surroundings", "studio"));

    private final JsonNode document;
    private final JsonNode operation;

    SampleRequest(JsonNode document, Endpoint endpoint) {
        this.document = document;
        operation =
                document.get("paths").get(endpoint.path()).get(endpoint.method().toLowerCase(Locale.ROOT));
    }

    /** The parameters that have to be there, as a query with its question mark. */
    String query() {
        List<String> all = new ArrayList<>();
        for (JsonNode p : operation.path("parameters")) {
            if (p.path("in").asString().equals("query") && p.path("required").asBoolean()) {
                all.add(p.get("name").asString() + "=" + value(p.get("schema")));
            }
        }
        return all.isEmpty() ? "" : "?" + String.join("&", all);
    }

    /** Null where the document knows of no JSON. */
    Object body() {
        JsonNode schema = operation
                .path("requestBody")
                .path("content")
                .path("application/json")
                .path("schema");
        return schema.isMissingNode() ? null : value(schema);
    }

    private Object value(JsonNode schema) {
        if (schema.has("$ref")) {
            String[] way = schema.get("$ref").asString().split("/");
            return value(document.get("components").get("schemas").get(way[way.length - 1]));
        }
        if (schema.has("enum")) {
            return schema.get("enum").get(0).asString();
        }
        if (schema.has("oneOf")) {
            return null;
        }
        JsonNode type = schema.path("type");
        if (type.isArray()) { // it may be null
            return null;
        }
        return switch (type.asString()) {
            case "object" -> object(schema);
            case "array" -> array(schema);
            case "boolean" -> false;
            case "integer" -> schema.path("minimum").asInt(0);
            case "number" -> schema.path("minimum").asDouble(0);
            default -> text(schema);
        };
    }

    private Object member(String name, JsonNode schema) {
        Object known = KNOWN.get(name);
        String type = schema.path("type").asString("");
        boolean fits = type.isEmpty() // it may be null
                || (known instanceof Integer && type.equals("integer"))
                || (known instanceof Double && type.equals("number"))
                || (known instanceof String && type.equals("string"))
                || (known instanceof List && type.equals("array"));
        return known != null && fits ? known : value(schema);
    }

    private Map<String, Object> object(JsonNode schema) {
        Map<String, Object> out = new LinkedHashMap<>();
        schema.path("properties").properties().forEach(p -> out.put(p.getKey(), member(p.getKey(), p.getValue())));
        if (out.isEmpty() && schema.path("minProperties").asInt(0) > 0) {
            out.put("roughness", 0.5);
        }
        return out;
    }

    private List<Object> array(JsonNode schema) {
        List<Object> out = new ArrayList<>();
        for (int i = 0; i < Math.max(1, schema.path("minItems").asInt(0)); i++) {
            out.add(value(schema.get("items")));
        }
        return out;
    }

    private static String text(JsonNode schema) {
        String format = schema.path("format").asString("");
        return format.equals("uuid")
                ? ID
                : "x".repeat(Math.max(1, schema.path("minLength").asInt(0)));
    }
}
