package org.transitum.standins;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.transitum.standins.StandIn.Database;
import org.transitum.standins.StandIn.Link;
import org.transitum.standins.StandIn.Seen;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * What a stand-in tells at a time, as docs/formats/reading.md has it. Its counters are integrals of
 * a day's rhythm, so that any two samples agree on what happened between them.
 */
final class Telling {
  private static final Instant START = Instant.parse("2026-01-01T00:00:00Z");
  private static final double DAY = 86_400;
  private static final long MIB = 1L << 20;
  private static final double READS_PER_TRANSACTION = 6.5;
  private static final double WRITES_PER_TRANSACTION = 2.2;
  private static final double LOG_BYTES_PER_TRANSACTION = 3_900;
  private static final double SECONDS_OF_PROCESSOR_PER_TRANSACTION = 0.004;
  private static final double TRANSACTIONS_PER_CONNECTION = 2.5;
  private static final double QUIET = 0.1;
  private static final JsonMapper JSON = JsonMapper.builder().build();

  private final StandIn server;
  private final Instant at;
  private final boolean first;

  /**
   * @param first whether this is the first reading since the stand-in started
   */
  Telling(StandIn server, Instant at, boolean first) {
    this.server = server;
    this.at = at;
    this.first = first;
  }

  byte[] reading() {
    ObjectNode root = head("transitum-reading");
    root.put("read_at", at.toString());
    ArrayNode objects = root.putArray("objects");
    object(objects, "host", server.host(), "server properties")
        .put("byte_order", server.byteOrder());
    ObjectNode facts = object(objects, "instance", server.instance(), "server properties");
    facts.put("engine", server.engine()).put("version", server.version());
    if (!server.edition().isEmpty()) {
      facts.put("edition", server.edition());
    }
    facts.put("host", server.host()).put("port", server.port()).put("log_mode", server.logMode());
    boolean half = server.trouble() == Trouble.HALF_PERMITTED;
    ArrayNode unread = root.putArray("unread");
    if (half) {
      unread.add(server.instance() + ": logins not readable; ask its administrator for the right.");
    } else {
      facts.put("roles", server.roles());
    }
    for (Database database : present()) {
      database(objects, database, half);
      if (half) {
        unread.add(
            "%s: object counts not readable; ask its administrator for the right."
                .formatted(key(database)));
      }
    }
    ArrayNode ties = root.putArray("ties");
    for (Link link : half ? List.<Link>of() : server.links()) {
      ties.addObject()
          .put("from", server.instance() + "/" + link.from())
          .put("host", link.host())
          .put("port", link.port())
          .put("database", link.database())
          .put("how", link.how());
    }
    return JSON.writeValueAsBytes(root);
  }

  private void database(ArrayNode objects, Database database, boolean half) {
    ObjectNode facts = object(objects, "database", key(database), "catalogue views");
    facts.put("size_bytes", sizeBytes(database)).put("encoding", server.encoding());
    if (!half) {
      facts.put("tables", database.tables());
      facts.put("tables_without_key", database.tablesWithoutKey());
      facts.put("views", database.views()).put("routines", database.routines());
      facts.put("triggers", database.triggers());
      if (!database.features().isEmpty()) {
        facts.put("features", String.join(", ", database.features()));
      }
    }
  }

  byte[] samples() {
    ObjectNode root = head("transitum-samples");
    ArrayNode samples = root.putArray("samples");
    double all = 0;
    double connections = 0;
    for (Database database : present()) {
      double done = database.transactionsPerSecond() * workedSeconds();
      all += done;
      double open =
          Math.ceil(database.transactionsPerSecond() * rhythm() / TRANSACTIONS_PER_CONNECTION);
      connections += open;
      String key = key(database);
      sample(samples, key, "transactions_total", Math.floor(done));
      sample(samples, key, "reads_total", Math.floor(done * READS_PER_TRANSACTION));
      sample(samples, key, "writes_total", Math.floor(done * WRITES_PER_TRANSACTION));
      sample(samples, key, "cpu_seconds_total", done * SECONDS_OF_PROCESSOR_PER_TRANSACTION);
      sample(samples, key, "connections", open);
      sample(samples, key, "size_bytes", sizeBytes(database));
    }
    sample(
        samples, server.instance(), "log_bytes_total", Math.floor(all * LOG_BYTES_PER_TRANSACTION));
    sample(samples, server.instance(), "connections", connections);
    return JSON.writeValueAsBytes(root);
  }

  private ObjectNode head(String format) {
    return JSON.createObjectNode()
        .put("format", format)
        .put("version", 1)
        .put("instance", server.instance());
  }

  private List<Database> present() {
    return server.databases().stream()
        .filter(database -> database.seen() != (first ? Seen.LATER : Seen.FIRST))
        .toList();
  }

  private String key(Database database) {
    return server.instance() + "/" + database.name();
  }

  private static ObjectNode object(ArrayNode objects, String kind, String key, String place) {
    return objects
        .addObject()
        .put("kind", kind)
        .put("key", key)
        .put("place", place)
        .putObject("facts");
  }

  private static void sample(ArrayNode samples, String object, String counter, double value) {
    samples.addObject().put("object", object).put("counter", counter).put("value", value);
  }

  private double seconds() {
    return Duration.between(START, at).toMillis() / 1000.0;
  }

  private long sizeBytes(Database database) {
    return database.sizeMib() * MIB
        + (long) (database.growthMibPerDay() * MIB * Math.floor(seconds()) / DAY);
  }

  /** Work relative to the day's mean: least at midnight UTC, most at noon. */
  private double rhythm() {
    return 1 - (1 - QUIET) * Math.cos(2 * Math.PI * seconds() / DAY);
  }

  /** The integral of the rhythm since the start. */
  private double workedSeconds() {
    double turn = 2 * Math.PI / DAY;
    return seconds() - (1 - QUIET) * Math.sin(turn * seconds()) / turn;
  }
}
