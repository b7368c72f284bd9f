package org.transitum.server.inventory;

import static org.transitum.core.team.Role.ENGINEER;
import static org.transitum.core.team.Role.LEAD;
import static org.transitum.core.team.Role.OBSERVER;
import static org.transitum.core.team.Role.OWNER;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.transitum.server.inventory.FileReadService.ReadFile;
import org.transitum.server.inventory.FileReadService.SheetMapping;
import org.transitum.server.inventory.ReadingService.AcceptedReading;
import org.transitum.server.inventory.ReadingService.OpenReading;
import org.transitum.server.inventory.ReadingService.ReadingHead;
import org.transitum.server.team.AllowedTo;
import org.transitum.sources.inventory.InventoryFile.Faulty;

@RestController
@RequestMapping("/api/v1/inventory")
class ReadingController {
  private final ReadingService readings;
  private final FileReadService files;

  ReadingController(ReadingService readings, FileReadService files) {
    this.readings = readings;
    this.files = files;
  }

  /**
   * @param changes ids of the changes to take; absent for all
   * @param same for a new object that is a known one under another name: the change's id and the
   *     known key
   */
  record Acceptance(@Nullable Set<String> changes, @Nullable Map<String, String> same) {}

  record Accepted(int changes) {}

  /**
   * @param faulty what becomes of cells and rows that cannot be understood; refused where absent
   */
  record Mapping(@NotNull List<SheetMapping> sheets, @Nullable Faulty faulty) {}

  @GetMapping("/readings")
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  List<ReadingHead> openReadings() {
    return readings.openReadings();
  }

  @GetMapping("/readings/accepted")
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  List<AcceptedReading> acceptedReadings() {
    return readings.acceptedReadings();
  }

  /** The body is the file itself: CSV, XLSX or JSON. */
  @PostMapping(path = "/readings")
  @AllowedTo({LEAD, ENGINEER})
  ReadFile readFile(
      @RequestParam String name,
      @RequestParam(defaultValue = "REFUSED") Faulty faulty,
      HttpServletRequest request)
      throws IOException {
    return files.read(name, request.getInputStream(), faulty);
  }

  /** Reads a file that waits for its columns to be mapped. */
  @PostMapping("/files/{id}/readings")
  @AllowedTo({LEAD, ENGINEER})
  OpenReading readMapped(@PathVariable long id, @Valid @RequestBody Mapping mapping) {
    return files.read(
        id, mapping.sheets(), mapping.faulty() == null ? Faulty.REFUSED : mapping.faulty());
  }

  @DeleteMapping("/files/{id}")
  @AllowedTo({LEAD, ENGINEER})
  void dropFile(@PathVariable long id) {
    files.drop(id);
  }

  @GetMapping("/readings/{id}")
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  OpenReading reading(@PathVariable long id) {
    return readings.reading(id);
  }

  @PostMapping("/readings/{id}/accept")
  @AllowedTo({LEAD, ENGINEER})
  Accepted accept(@PathVariable long id, @RequestBody Acceptance acceptance) {
    return new Accepted(
        readings.accept(
            id, acceptance.changes(), acceptance.same() == null ? Map.of() : acceptance.same()));
  }

  @PostMapping("/readings/{id}/undo")
  @AllowedTo(LEAD)
  void undo(@PathVariable long id) {
    readings.undo(id);
  }

  @DeleteMapping("/readings/{id}")
  @AllowedTo({LEAD, ENGINEER})
  void discard(@PathVariable long id) {
    readings.discard(id);
  }
}
