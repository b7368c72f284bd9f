package org.transitum.server.crossings;

import static org.transitum.core.team.Role.ENGINEER;
import static org.transitum.core.team.Role.LEAD;
import static org.transitum.core.team.Role.OBSERVER;
import static org.transitum.core.team.Role.OWNER;

import jakarta.validation.Valid;
import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.transitum.core.crossings.Move;
import org.transitum.core.crossings.Place;
import org.transitum.server.crossings.CrossingService.CrossingView;
import org.transitum.server.crossings.PlaceService.PlaceView;
import org.transitum.server.problems.Refused;
import org.transitum.server.problems.Versions;
import org.transitum.server.team.AllowedTo;

@RestController
@RequestMapping("/api/v1/crossings")
class CrossingsController {
  private final CrossingService crossings;
  private final PlaceService places;

  CrossingsController(CrossingService crossings, PlaceService places) {
    this.crossings = crossings;
    this.places = places;
  }

  record NewCrossing(@NotBlank String database, @Nullable String owner) {}

  record Assignment(@NotBlank String owner) {}

  record MoveRequest(@NotNull Move move, @Nullable @Size(max = 2000) String reason) {}

  /**
   * @param progress 0 to 1
   */
  record Report(
      @Nullable @DecimalMin("0") @DecimalMax("1") Double progress,
      @Nullable @Min(0) Long lagSeconds) {}

  /**
   * @param place PREPARED, SETTLED or RETIRED
   */
  record PlaceRequest(@NotBlank String database, @NotNull Place place) {}

  @GetMapping
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  List<CrossingView> crossings() {
    return crossings.crossings();
  }

  @GetMapping("/places")
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  List<PlaceView> places() {
    return places.places();
  }

  @PutMapping("/places")
  @AllowedTo({LEAD, ENGINEER})
  PlaceView place(@Valid @RequestBody PlaceRequest request) {
    return switch (request.place()) {
      case PREPARED -> crossings.prepare(request.database());
      case SETTLED -> crossings.settle(request.database());
      case RETIRED -> crossings.retire(request.database());
      default ->
          throw new Refused(
              "A database becomes %s by its wave or its crossing, not by hand."
                  .formatted(request.place().words()));
    };
  }

  @PostMapping
  @AllowedTo({LEAD, ENGINEER})
  CrossingView setUp(@Valid @RequestBody NewCrossing setUp) {
    return crossings.setUp(setUp.database(), setUp.owner());
  }

  @GetMapping("/{key}")
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  CrossingView crossing(@PathVariable String key) {
    return crossings.crossing(key);
  }

  @PutMapping("/{key}/owner")
  @AllowedTo({LEAD, ENGINEER})
  CrossingView assign(
      @PathVariable String key,
      @RequestHeader("If-Match") String ifMatch,
      @Valid @RequestBody Assignment assignment) {
    return crossings.assign(key, assignment.owner(), Versions.of(ifMatch));
  }

  @PostMapping("/{key}/moves")
  @AllowedTo({LEAD, ENGINEER})
  CrossingView move(
      @PathVariable String key,
      @RequestHeader("If-Match") String ifMatch,
      @Valid @RequestBody MoveRequest request) {
    return crossings.move(key, request.move(), request.reason(), Versions.of(ifMatch));
  }

  @PostMapping("/{key}/reports")
  @AllowedTo({LEAD, ENGINEER})
  CrossingView report(
      @PathVariable String key,
      @RequestHeader("If-Match") String ifMatch,
      @Valid @RequestBody Report report) {
    return crossings.report(key, report.progress(), report.lagSeconds(), Versions.of(ifMatch));
  }
}
