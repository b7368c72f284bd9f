package org.transitum.server.journal;

import static org.transitum.core.team.Role.ENGINEER;
import static org.transitum.core.team.Role.LEAD;
import static org.transitum.core.team.Role.OBSERVER;
import static org.transitum.core.team.Role.OWNER;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.transitum.server.journal.JournalService.Entry;
import org.transitum.server.team.AllowedTo;

@RestController
@RequestMapping("/api/v1/journal")
class JournalController {
  private final JournalService journal;

  JournalController(JournalService journal) {
    this.journal = journal;
  }

  @GetMapping
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  List<Entry> journal(
      @RequestParam(required = false) @Nullable String kind,
      @RequestParam(required = false) @Nullable String key,
      @RequestParam(required = false) @Nullable Long before,
      @RequestParam(defaultValue = "100") int limit) {
    return journal.page(kind, key, before, limit);
  }
}
