package app.zolvan.server.model;

import app.zolvan.core.exchange.DressedModel;
import app.zolvan.core.model.Excerpt;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.scheme.LookTable;
import org.springframework.stereotype.Component;

/** The design of a project as a scheme dresses it, without its surroundings, ready to be written to a file. */
@Component
public class DressedModels {
    private final ModelStore store;
    private final AssetService assets;
    private final AgeingService ageing;

    DressedModels(ModelStore store, AssetService assets, AgeingService ageing) {
        this.store = store;
        this.assets = assets;
        this.ageing = ageing;
    }

    public DressedModel of(String name, LookTable looks) {
        Scene scene = looks.scene();
        Excerpt design = Excerpt.without(store.shown(scene.projectId()), scene.surroundings());
        return new DressedModel(
                name,
                design.model(),
                (part, span) -> looks.of(design.parts().get(part), span),
                (part, span) -> looks.back(design.parts().get(part), span),
                assets::bytes,
                (part, corrodes) -> ageing.of(scene, design.parts().get(part), corrodes));
    }
}
