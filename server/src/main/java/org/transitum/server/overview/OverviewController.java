package org.transitum.server.overview;

import static org.transitum.core.team.Role.ENGINEER;
import static org.transitum.core.team.Role.LEAD;
import static org.transitum.core.team.Role.OBSERVER;
import static org.transitum.core.team.Role.OWNER;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.transitum.server.overview.OverviewService.Picture;
import org.transitum.server.overview.OverviewService.StationLeft;
import org.transitum.server.overview.OverviewService.TodayItem;
import org.transitum.server.team.AllowedTo;

@RestController
@RequestMapping("/api/v1/overview")
class OverviewController {
  private final OverviewService overview;

  OverviewController(OverviewService overview) {
    this.overview = overview;
  }

  /**
   * @param at absent for now
   */
  @GetMapping("/picture")
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  Picture picture(@RequestParam(required = false) @Nullable Instant at) {
    return overview.picture(at);
  }

  @GetMapping("/today")
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  List<TodayItem> today() {
    return overview.today();
  }

  @GetMapping("/left")
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  List<StationLeft> left() {
    return overview.left();
  }
}
