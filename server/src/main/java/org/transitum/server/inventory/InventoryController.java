package org.transitum.server.inventory;

import static org.transitum.core.team.Role.ENGINEER;
import static org.transitum.core.team.Role.LEAD;
import static org.transitum.core.team.Role.OBSERVER;
import static org.transitum.core.team.Role.OWNER;

import io.swagger.v3.oas.annotations.Parameter;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.server.inventory.FactService.Edit;
import org.transitum.server.inventory.FactService.EditResult;
import org.transitum.server.inventory.FactService.ObjectFacts;
import org.transitum.server.inventory.QuestionService.OwnerQuestions;
import org.transitum.server.inventory.SavedViewMapper.SavedView;
import org.transitum.server.problems.Missing;
import org.transitum.server.problems.Versions;
import org.transitum.server.team.AllowedTo;
import org.transitum.server.team.CurrentPerson;

@RestController
@RequestMapping("/api/v1/inventory")
class InventoryController {
  private final PackedTables tables;
  private final FactService facts;
  private final QuestionService questions;
  private final SavedViewMapper views;
  private final CurrentPerson current;

  InventoryController(
      PackedTables tables,
      FactService facts,
      QuestionService questions,
      SavedViewMapper views,
      CurrentPerson current) {
    this.tables = tables;
    this.facts = facts;
    this.questions = questions;
    this.views = views;
    this.current = current;
  }

  record Statement(
      @NotNull ObjectKind kind,
      @NotBlank String key,
      @NotBlank String attribute,
      @NotNull String value,
      boolean pinned,
      @Nullable @Size(max = 2000) String reason) {}

  /**
   * @param dryRun whether to say what would happen and store nothing
   */
  record Edits(
      @NotNull ObjectKind kind,
      @NotNull List<Edit> edits,
      boolean pinned,
      @Nullable @Size(max = 2000) String reason,
      boolean dryRun) {}

  record ViewToSave(
      @NotBlank @Size(max = 120) String name, @NotNull @Size(max = 4000) String address) {}

  @GetMapping("/table")
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  @ApiResponse(
      responseCode = "200",
      content =
          @Content(
              mediaType = MediaType.APPLICATION_JSON_VALUE,
              schema = @Schema(implementation = InventoryTable.class)))
  ResponseEntity<byte[]> table(
      @RequestParam ObjectKind kind,
      @Parameter(hidden = true) @RequestHeader(name = "Accept-Encoding", defaultValue = "")
          String accepts) {
    ResponseEntity.BodyBuilder answer =
        ResponseEntity.ok()
            .contentType(MediaType.APPLICATION_JSON)
            .header("Vary", "Accept-Encoding");
    return accepts.contains("gzip")
        ? answer.header("Content-Encoding", "gzip").body(tables.gzip(kind))
        : answer.body(tables.plain(kind));
  }

  @GetMapping("/object")
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  ObjectFacts object(@RequestParam ObjectKind kind, @RequestParam String key) {
    return facts.facts(kind, key);
  }

  @PutMapping("/object/fact")
  @AllowedTo({LEAD, ENGINEER})
  ObjectFacts state(
      @RequestHeader("If-Match") String ifMatch, @Valid @RequestBody Statement statement) {
    facts.state(
        statement.kind(),
        statement.key(),
        statement.attribute(),
        statement.value(),
        statement.pinned(),
        statement.reason(),
        Versions.of(ifMatch));
    return facts.facts(statement.kind(), statement.key());
  }

  /** Takes back what a person stated, so that what sources tell counts again. */
  @DeleteMapping("/object/fact")
  @AllowedTo({LEAD, ENGINEER})
  ObjectFacts withdraw(
      @RequestHeader("If-Match") String ifMatch,
      @RequestParam ObjectKind kind,
      @RequestParam String key,
      @RequestParam String attribute) {
    facts.withdraw(kind, key, attribute, Versions.of(ifMatch));
    return facts.facts(kind, key);
  }

  /** Many values at once, all or none. */
  @PostMapping("/edits")
  @AllowedTo({LEAD, ENGINEER})
  List<EditResult> edit(@Valid @RequestBody Edits edits) {
    return facts.edit(edits.kind(), edits.edits(), edits.pinned(), edits.reason(), edits.dryRun());
  }

  @GetMapping("/questions")
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  List<OwnerQuestions> questions() {
    return questions.owners();
  }

  /** A CSV of the owner's databases that lack something, to be filled in and read again. */
  @GetMapping(path = "/questions/file", produces = "text/csv")
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  ResponseEntity<String> questionFile(@RequestParam String owner) {
    return ResponseEntity.ok()
        .header(
            HttpHeaders.CONTENT_DISPOSITION,
            "attachment; filename=\"questions-%s.csv\""
                .formatted(owner.isEmpty() ? "nobody" : owner.replaceAll("[^A-Za-z0-9]+", "-")))
        .body(questions.file(owner));
  }

  @GetMapping("/views")
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  List<SavedView> views() {
    return views.of(current.login());
  }

  /** Each person's own; one of the same name is replaced. */
  @PutMapping("/views")
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  List<SavedView> save(@Valid @RequestBody ViewToSave view) {
    views.save(current.login(), view.name().strip(), view.address());
    return views.of(current.login());
  }

  @DeleteMapping("/views/{id}")
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  List<SavedView> drop(@PathVariable long id) {
    if (views.drop(id, current.login()) == 0) {
      throw new Missing("You have no saved view %d.".formatted(id));
    }
    return views.of(current.login());
  }
}
