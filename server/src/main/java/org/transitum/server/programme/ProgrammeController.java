package org.transitum.server.programme;

import static org.transitum.core.team.Role.ENGINEER;
import static org.transitum.core.team.Role.LEAD;
import static org.transitum.core.team.Role.OBSERVER;
import static org.transitum.core.team.Role.OWNER;

import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.transitum.core.sizing.SizingSettings;
import org.transitum.server.problems.Versions;
import org.transitum.server.programme.ProgrammeService.Programme;
import org.transitum.server.team.AllowedTo;

@RestController
@RequestMapping("/api/v1/programme")
class ProgrammeController {
  private final ProgrammeService service;

  ProgrammeController(ProgrammeService service) {
    this.service = service;
  }

  @GetMapping
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  Programme programme() {
    return service.current();
  }

  record StaleAfter(int days) {}

  @PutMapping("/stale-after")
  @AllowedTo(LEAD)
  Programme staleAfter(
      @RequestHeader("If-Match") String ifMatch, @RequestBody StaleAfter staleAfter) {
    service.staleAfter(staleAfter.days(), Versions.of(ifMatch));
    return service.current();
  }

  @PutMapping("/sizing")
  @AllowedTo(LEAD)
  Programme keepSizing(
      @RequestHeader("If-Match") String ifMatch, @RequestBody SizingSettings settings) {
    service.keepSizing(settings, Versions.of(ifMatch));
    return service.current();
  }
}
