package app.zolvan.server.scheme;

import app.zolvan.server.account.Account;
import app.zolvan.server.project.Edit;
import app.zolvan.server.project.Query;
import app.zolvan.server.scheme.DressingService.DressingRow;
import app.zolvan.server.scheme.DressingService.Fitting;
import app.zolvan.server.scheme.DressingService.TableWire;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** An account's dressing tables. */
@RestController
class DressingController {
    private final DressingService dressing;

    DressingController(DressingService dressing) {
        this.dressing = dressing;
    }

    @GetMapping("/api/dressing-tables")
    List<TableWire> tables(@AuthenticationPrincipal Account account) {
        return dressing.tables(account);
    }

    @GetMapping("/api/dressing-tables/{table}")
    List<DressingRow> rows(@AuthenticationPrincipal Account account, @PathVariable UUID table) {
        return dressing.rows(account, table);
    }

    record TableRows(@NotNull @Size(max = 1000) List<@NotNull DressingRow> rows) {}

    @PutMapping("/api/dressing-tables/{table}")
    List<DressingRow> change(
            @AuthenticationPrincipal Account account, @PathVariable UUID table, @Validated @RequestBody TableRows r) {
        return dressing.change(account, table, r.rows());
    }

    @DeleteMapping("/api/dressing-tables/{table}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void delete(@AuthenticationPrincipal Account account, @PathVariable UUID table) {
        dressing.delete(account, table);
    }

    record TableName(@NotNull @Size(max = 200) String name) {}

    /** Keeps what this project's sets have got. */
    @PostMapping("/api/projects/{id}/dressing-tables")
    TableWire save(Query query, @Validated @RequestBody TableName n) {
        return dressing.save(query, n.name());
    }

    /** What a table would do to this project's sets; changes nothing. */
    @GetMapping("/api/projects/{id}/dressing-tables/{table}")
    List<Fitting> preview(Query query, @PathVariable UUID table) {
        return dressing.preview(query, table);
    }

    @PostMapping("/api/projects/{id}/dressing-tables/{table}/apply")
    ProjectState apply(Edit edit, @PathVariable UUID table) {
        return dressing.apply(edit, table);
    }
}
