package app.zolvan.server.start;

import app.zolvan.core.assign.Level;
import app.zolvan.core.assign.SchemeState;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.json.JsonValue;
import app.zolvan.core.model.LengthUnit;
import app.zolvan.server.account.Account;
import app.zolvan.server.account.AccountService;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.config.ZolvanProperties;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.library.MaterialService;
import app.zolvan.server.model.ImportWork;
import app.zolvan.server.model.ModelStore;
import app.zolvan.server.model.Scene;
import app.zolvan.server.project.Edit;
import app.zolvan.server.project.Query;
import app.zolvan.server.project.Seen;
import app.zolvan.server.scheme.AssignCommands;
import app.zolvan.server.scheme.CommandService;
import app.zolvan.server.scheme.ProjectState;
import app.zolvan.server.scheme.SchemeCommands;
import app.zolvan.server.scheme.SchemeCommands.Beginning;
import app.zolvan.server.scheme.SchemeStore;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.stereotype.Component;

/**
 * What happens when the application starts: the shipped library is brought up to date and, when a demo folder is named
 * and was not loaded before, the demo account and its projects are made through the same import and the same commands
 * that designers use.
 */
@Component
class Arrival implements ApplicationRunner {
    private static final Logger LOG = LoggerFactory.getLogger(Arrival.class);
    static final String DEMO_LOGIN = "demo";
    static final String DEMO_PASSWORD = "harbour-lantern";

    private final ZolvanProperties properties;
    private final AssetService assets;
    private final MaterialService materials;
    private final AccountService accounts;
    private final ImportWork imports;
    private final ModelStore models;
    private final CommandService commands;
    private final AssignCommands assigning;
    private final SchemeCommands schemes;
    private final StartMapper mapper;

    Arrival(
            ZolvanProperties properties,
            AssetService assets,
            MaterialService materials,
            AccountService accounts,
            ImportWork imports,
            ModelStore models,
            CommandService commands,
            AssignCommands assigning,
            SchemeCommands schemes,
            StartMapper mapper) {
        this.properties = properties;
        this.assets = assets;
        this.materials = materials;
        this.accounts = accounts;
        this.imports = imports;
        this.models = models;
        this.commands = commands;
        this.assigning = assigning;
        this.schemes = schemes;
        this.mapper = mapper;
    }

    @Override
    public void run(ApplicationArguments args) throws IOException, ImportException {
        assets.measurePictures();
        materials.installShippedLibrary();
        if (properties.demo() != null) {
            loadDemo(properties.demo());
        }
    }

    private void loadDemo(Path folder) throws IOException, ImportException {
        JsonValue demo = JsonValue.parse(Files.readAllBytes(folder.resolve("demo.json")));
        Account account =
                accounts.findOrCreate(DEMO_LOGIN, demo.require("studio").text(), DEMO_PASSWORD);
        for (JsonValue project : demo.list("projects")) {
            String file = project.require("file").text();
            UUID id = UUID.nameUUIDFromBytes(("demo " + file).getBytes(StandardCharsets.UTF_8));
            if (mapper.isLoaded(id)) {
                continue;
            }
            imports.importFile(
                    id,
                    account.id(),
                    project.require("name").text(),
                    project.text("client", ""),
                    LengthUnit.ofSymbol(project.text("unit", "mm")),
                    folder.resolve(file));
            for (JsonValue scheme : project.list("schemes")) {
                dress(account, id, scheme);
            }
            mapper.forgetHistory(id);
            mapper.setLoaded(id);
            LOG.info("loaded the demo project {}", project.require("name").text());
        }
    }

    /** Makes one of a demo project's schemes: the first is the one that the project was made with. */
    private void dress(Account account, UUID project, JsonValue scheme) throws ImportException {
        ProjectState state = commands.state(Query.of(account, project));
        String name = scheme.require("name").text();
        String base = scheme.text("base", null);
        UUID id = state.schemes().get(0).id();
        if (!state.schemes().get(0).name().equals(SchemeStore.FIRST)) {
            id = UUID.nameUUIDFromBytes((project + " " + name).getBytes(StandardCharsets.UTF_8));
            state = schemes.create(
                    Edit.of(account, project, Seen.of(state.version())),
                    id,
                    name,
                    base == null ? Beginning.EMPTY : Beginning.BASED,
                    state.schemes().stream()
                            .filter(s -> s.name().equals(base))
                            .findFirst()
                            .map(ProjectState.SchemeWire::id)
                            .orElse(null));
        }
        state = schemes.describe(
                Edit.of(account, project, Seen.of(state.version())),
                id,
                new SchemeCommands.Words(
                        name,
                        scheme.require("description").text(),
                        SchemeState.valueOf(scheme.require("state").text()),
                        ""));
        Map<String, UUID> byCode =
                materials.library().stream().collect(Collectors.toMap(MaterialRow::code, MaterialRow::id));
        JsonValue codeOfSet = scheme.require("sets");
        for (Scene.MatchingSet set : models.scene(project).sets()) {
            String code = codeOfSet.text(set.name(), null);
            if (code != null) {
                state = assigning.assign(
                        Edit.of(account, project, Seen.of(state.version())),
                        new AssignCommands.Giving(
                                new AssignCommands.Where.Named(
                                        List.of(new AssignCommands.Spot(Level.SET, set.index(), null))),
                                byCode.get(code),
                                null,
                                false,
                                List.of(id)));
            }
        }
    }
}
