package app.zolvan.server.model;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.server.asset.AssetService;
import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Component;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Models as they are stored, on their way from one project to another. */
@Component
public class StoredModels {
    private final ModelStore store;
    private final ModelMapper mapper;
    private final AssetService assets;
    private final JsonMapper json;

    StoredModels(ModelStore store, ModelMapper mapper, AssetService assets, JsonMapper json) {
        this.store = store;
        this.mapper = mapper;
        this.assets = assets;
        this.json = json;
    }

    /** A project's model as JSON that {@link #create} takes. */
    public JsonNode of(UUID project) {
        return json.valueToTree(store.rows(project));
    }

    /**
     * Gives a model that was stored elsewhere to a project that was just made and has its assets and materials.
     *
     * @param ownFaces names of faces that designers cut, by their numbers
     * @throws ImportException where the model contradicts itself, or its shapes are no shapes
     */
    public void create(UUID project, JsonNode stored, List<String> ownFaces) throws ImportException {
        ModelRows rows;
        try {
            rows = json.treeToValue(stored, ModelRows.class);
        } catch (JacksonException e) {
            throw new ImportException(
                    "damaged", "The model in this project file can’t be read: " + e.getOriginalMessage());
        }
        StoredModelCheck.require(
                rows, project, digest -> assets.isInProject(project, digest) ? assets.bytes(digest) : null);
        mapper.insertModel(rows.model());
        store.replace(rows);
        ownFaces.forEach(name -> mapper.insertOwnFace(project, name));
    }
}
