package org.transitum.sources.counters;

import java.util.List;
import org.transitum.sources.inventory.ReadableEngine;
import org.transitum.sources.inventory.ServerAddress;

/** Takes one sample of a live server's counters without writing anything on it. */
public interface ServerSampler {

  /**
   * @param instance the server's key in the inventory
   * @throws org.transitum.sources.inventory.Unreachable with the reason in words
   */
  List<Sample> sample(ServerAddress address, String instance);

  static ServerSampler of(ReadableEngine engine) {
    return switch (engine) {
      case POSTGRESQL -> PostgresSampler::sample;
      case MARIADB -> MariaDbSampler::sample;
      case OTHER -> JsonSampler::sample;
    };
  }
}
