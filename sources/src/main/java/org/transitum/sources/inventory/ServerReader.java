package org.transitum.sources.inventory;

import java.time.Instant;

/** Reads a live server without writing anything on it. */
public interface ServerReader {

  /**
   * @param instance the key the server has, or is to have, in the inventory
   * @param at when it is read
   * @throws Unreachable when nothing at all can be read
   */
  ServerReading read(ServerAddress address, String instance, Instant at);

  static ServerReader of(ReadableEngine engine) {
    return switch (engine) {
      case POSTGRESQL -> PostgresReader::read;
      case MARIADB -> MariaDbReader::read;
      case OTHER -> JsonService::read;
    };
  }
}
