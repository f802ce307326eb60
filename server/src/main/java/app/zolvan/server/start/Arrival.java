package app.zolvan.server.start;

import app.zolvan.core.assign.Level;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.json.JsonValue;
import app.zolvan.core.model.LengthUnit;
import app.zolvan.server.account.Account;
import app.zolvan.server.account.AccountService;
import app.zolvan.server.config.ZolvanProperties;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.library.MaterialService;
import app.zolvan.server.model.ImportWork;
import app.zolvan.server.model.ModelStore;
import app.zolvan.server.model.Scene;
import app.zolvan.server.scheme.CommandService;
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
    private final MaterialService materials;
    private final AccountService accounts;
    private final ImportWork imports;
    private final ModelStore models;
    private final CommandService commands;
    private final StartMapper mapper;

    Arrival(
            ZolvanProperties properties,
            MaterialService materials,
            AccountService accounts,
            ImportWork imports,
            ModelStore models,
            CommandService commands,
            StartMapper mapper) {
        this.properties = properties;
        this.materials = materials;
        this.accounts = accounts;
        this.imports = imports;
        this.models = models;
        this.commands = commands;
        this.mapper = mapper;
    }

    @Override
    public void run(ApplicationArguments args) throws IOException, ImportException {
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
            dress(account, id, project.require("sets"));
            mapper.setLoaded(id);
            LOG.info("loaded the demo project {}", project.require("name").text());
        }
    }

    private void dress(Account account, UUID project, JsonValue codeOfSet) throws ImportException {
        Map<String, UUID> byCode =
                materials.library().stream().collect(Collectors.toMap(MaterialRow::code, MaterialRow::id));
        for (Scene.MatchingSet set : models.scene(project).sets()) {
            String code = codeOfSet.text(set.name(), null);
            if (code != null) {
                long seen = commands.state(account, project).version();
                commands.assign(account, project, seen, Level.SET, List.of(set.index()), byCode.get(code));
            }
        }
        mapper.forgetHistory(project);
    }
}
