package org.transitum.server.sizing;

import static org.transitum.core.team.Role.ENGINEER;
import static org.transitum.core.team.Role.LEAD;
import static org.transitum.core.team.Role.OBSERVER;
import static org.transitum.core.team.Role.OWNER;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.transitum.core.sizing.SizingSettings;
import org.transitum.server.programme.ProgrammeService;
import org.transitum.server.sizing.SizingService.DatabaseSizing;
import org.transitum.server.sizing.SizingService.EstateSizing;
import org.transitum.server.team.AllowedTo;

@RestController
@RequestMapping("/api/v1/sizing")
class SizingController {
  private final SizingService sizing;
  private final CatalogueService catalogues;
  private final ProgrammeService programme;

  SizingController(SizingService sizing, CatalogueService catalogues, ProgrammeService programme) {
    this.sizing = sizing;
    this.catalogues = catalogues;
    this.programme = programme;
  }

  record ReadCatalogue(String name, int kinds, int tiers) {}

  /** Settings that are left out are the kept ones. */
  @GetMapping
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  EstateSizing estate(
      @RequestParam(required = false) @Nullable Double percentile,
      @RequestParam(required = false) @Nullable Integer headroomPercent,
      @RequestParam(required = false) @Nullable Integer horizonMonths) {
    return sizing.estate(settings(percentile, headroomPercent, horizonMonths));
  }

  @GetMapping("/database")
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  DatabaseSizing database(
      @RequestParam String key,
      @RequestParam(required = false) @Nullable Double percentile,
      @RequestParam(required = false) @Nullable Integer headroomPercent,
      @RequestParam(required = false) @Nullable Integer horizonMonths) {
    return sizing.database(key, settings(percentile, headroomPercent, horizonMonths));
  }

  /** The body is the catalogue file itself. */
  @PutMapping("/catalogue")
  @AllowedTo(LEAD)
  ReadCatalogue read(@RequestParam String name, HttpServletRequest request) throws IOException {
    var catalogue = catalogues.read(name, request.getInputStream());
    return new ReadCatalogue(catalogue.name(), catalogue.kinds().size(), catalogue.tiers().size());
  }

  private SizingSettings settings(
      @Nullable Double percentile,
      @Nullable Integer headroomPercent,
      @Nullable Integer horizonMonths) {
    SizingSettings kept = programme.current().sizing();
    return new SizingSettings(
        percentile == null ? kept.percentile() : percentile,
        headroomPercent == null ? kept.headroomPercent() : headroomPercent,
        horizonMonths == null ? kept.horizonMonths() : horizonMonths,
        kept.lookBackDays(),
        kept.growthPercentPerYear());
  }
}
