package org.transitum.server.demo;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.time.Clock;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;
import org.transitum.server.inventory.SourceServers;
import org.transitum.sources.inventory.ReadableEngine;
import org.transitum.sources.inventory.ServerAddress.TlsMode;
import org.transitum.standins.StandIn;
import org.transitum.standins.StandIns;

/** Stand-in servers of the demo estate, ready to be read. */
@Component
@ConditionalOnProperty("transitum.demo")
class DemoServers {
  private final SourceServers servers;
  private final StandIns standIns;

  DemoServers(SourceServers servers) throws IOException {
    this.servers = servers;
    this.standIns = StandIns.start(Clock.systemUTC());
  }

  /** Lists them as a lead would. */
  void list() {
    for (StandIn server : StandIns.demo()) {
      servers.save(
          server.instance(),
          ReadableEngine.OTHER,
          "127.0.0.1",
          standIns.port(),
          server.instance(),
          StandIns.USER,
          StandIns.PASSWORD,
          TlsMode.DISABLE);
    }
  }

  @PreDestroy
  void stop() {
    standIns.close();
  }
}
