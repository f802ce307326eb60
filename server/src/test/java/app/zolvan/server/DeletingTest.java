package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.UUID;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Deleting, adding and cutting again in any order: whatever a project refers to stays, and nothing keeps others from it. */
class DeletingTest extends ProjectTest {
    private UUID id;

    @BeforeEach
    void importSurfaces() throws Exception {
        JsonNode job = browser.importFile("stools.zip", ImportTest.cut(stools(), 0.001));
        open("/api/projects/" + job.get("result").asString());
        id = UUID.fromString(job.get("result").asString());
    }

    private void addAndCutAgain() throws Exception {
        assertThat(browser.ended(browser.uploadBeside(id.toString(), "SURROUNDINGS", "bench.glb", stools()))
                        .get("state")
                        .asString())
                .isEqualTo("DONE");
        JsonNode cut = browser.importInto(id, "stools.zip", ImportTest.cut(stools(), 0.0002));
        assertThat(cut.get("problem").isNull()).as("%s", cut.get("problem")).isTrue();
        assertThat(cut.get("state").asString()).isEqualTo("DONE");
    }

    @Test
    void cuttingAgainAfterAModelWasAddedIsDoneAndProjectsCanBeDeleted() throws Exception {
        addAndCutAgain();
        assertThat(scene().get("models")).hasSize(2);
        String another = newProject();
        assertThat(browser.delete(another).status()).isEqualTo(204);
        assertThat(browser.delete(project).status()).isEqualTo(204);
        assertThat(database.queryForObject(
                        "select count(*) from project_asset where project_id = ?", Integer.class, id))
                .isZero();
    }

    @Test
    void thereIsNoWayBackOverACutToAModelThatWasRemovedBefore() throws Exception {
        addAndCutAgain();
        state = get("/state");
        assertThat(browser.delete(project + "/models/1", version()).status()).isEqualTo(200);
        JsonNode cut = browser.importInto(id, "stools.zip", ImportTest.cut(stools(), 0.0004));
        assertThat(cut.get("state").asString()).isEqualTo("DONE");
        state = get("/state");
        Browser.Answer undo = tried("/undo", java.util.Map.of());
        assertThat(undo.status()).as("%s", undo.json()).isEqualTo(409);
        assertThat(undo.sentence()).contains("cut anew since");
        assertThat(scene().get("models")).hasSize(1);
        assertThat(browser.delete(project).status()).isEqualTo(204);
    }

    /** As databases are that were hurt before: clean-up goes on for everybody else. */
    @Test
    void whatIsReferredToAndNotAmongAProjectsFilesKeepsNobodyFromDeleting() throws Exception {
        addAndCutAgain();
        database.update("""
                delete from project_asset p using placed_model m
                where m.project_id = p.project_id and m.original = p.sha256 and p.project_id = ?""", id);
        String another = newProject();
        assertThat(browser.delete(another).status()).isEqualTo(204);
        assertThat(database.queryForObject(
                        "select count(*) from placed_model m join asset a on a.sha256 = m.original where m.project_id = ?",
                        Integer.class,
                        id))
                .isEqualTo(1);
    }
}
