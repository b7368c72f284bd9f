package org.transitum.server.live;

import static org.transitum.core.team.Role.ENGINEER;
import static org.transitum.core.team.Role.LEAD;
import static org.transitum.core.team.Role.OBSERVER;
import static org.transitum.core.team.Role.OWNER;

import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import org.transitum.server.team.AllowedTo;

@RestController
class LiveController {
  private final LiveFeed feed;

  LiveController(LiveFeed feed) {
    this.feed = feed;
  }

  @GetMapping(path = "/api/v1/live", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  SseEmitter live(
      @RequestHeader(name = "Last-Event-ID", required = false) @Nullable String lastEventId) {
    return feed.connect(lastEventId);
  }
}
