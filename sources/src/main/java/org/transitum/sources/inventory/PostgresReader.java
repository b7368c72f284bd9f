package org.transitum.sources.inventory;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.ByteOrder;
import org.transitum.core.inventory.DatabaseKey;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.core.inventory.Origin;
import org.transitum.core.inventory.Reading;
import org.transitum.core.inventory.Reading.ReadObject;
import org.transitum.sources.inventory.ServerReading.SeenTie;

/**
 * Reads a live PostgreSQL server, 12 or newer, without writing anything: the instance, each
 * database that the user may connect to, and the ties seen in them. What cannot be read is named
 * and the rest is kept.
 */
public final class PostgresReader {
  private static final String SETTINGS =
      """
      select current_setting('server_version') as version,
             version() as platform,
             pg_size_bytes(current_setting('shared_buffers')) as cache_bytes,
             current_setting('max_connections') as max_connections,
             current_setting('wal_level') as log_mode,
             current_setting('TimeZone') as time_zone,
             current_setting('data_checksums') as page_checksums,
             current_setting('ssl') as tls,
             (select count(*) from pg_roles where rolname !~ '^pg_') as roles,
             (select count(*) from pg_roles where rolsuper) as roles_with_all_rights,
             (select count(*) from pg_replication_slots) as replication_slots,
             (select string_agg(name || ' ' || setting || coalesce(' ' || unit, ''), ', ' order by name)
                from pg_settings
               where name in ('archive_mode', 'max_slot_wal_keep_size', 'wal_keep_segments',
                              'wal_keep_size')) as log_retention
      """;

  /** Who follows it, and whom it follows; the names need pg_monitor. */
  private static final String REPLICATION =
      """
      select pg_is_in_recovery() as follows,
             (select count(*) from pg_stat_replication) as followers,
             (select sender_host || ':' || sender_port from pg_stat_wal_receiver limit 1) as sender
      """;

  /** Libraries loaded at the start; seen with pg_read_all_settings only. */
  private static final String PRELOADED =
      "select setting from pg_settings where name = 'shared_preload_libraries'";

  private static final String DATABASES =
      """
      select datname, pg_encoding_to_char(encoding) as encoding, datcollate as collation,
             has_database_privilege(datname, 'connect') as may_connect,
             case when has_database_privilege(datname, 'connect')
                    or pg_has_role('pg_read_all_stats', 'usage')
                  then pg_database_size(datname) end as size_bytes
        from pg_database where not datistemplate and datallowconn order by datname
      """;
  private static final int AT_A_TIME = 4;

  private final ServerAddress address;
  private final String instance;
  private final Instant at;
  private final List<ReadObject> objects = new ArrayList<>();
  private final List<SeenTie> ties = new ArrayList<>();
  private final List<String> unread = new ArrayList<>();

  private PostgresReader(ServerAddress address, String instance, Instant at) {
    this.address = address;
    this.instance = instance;
    this.at = at;
  }

  /**
   * @param instance the key the server has, or is to have, in the inventory
   * @param at when it is read
   * @throws Unreachable when nothing at all can be read
   */
  public static ServerReading read(ServerAddress address, String instance, Instant at) {
    return new PostgresReader(address, instance, at).run();
  }

  private ServerReading run() {
    List<String> reachable;
    try (Connection connection = PostgresConnections.open(address)) {
      readInstance(connection);
      reachable = readDatabases(connection);
    } catch (SQLException e) {
      throw new Unreachable(
          "%s broke off: %s.".formatted(address, PostgresConnections.plain(e)), e);
    }
    readInside(reachable);
    Reading reading =
        new Reading(
            ServerReading.source(instance),
            Origin.OBSERVED,
            at,
            List.copyOf(objects),
            List.copyOf(unread));
    return new ServerReading(reading, List.copyOf(ties));
  }

  private void readInstance(Connection connection) throws SQLException {
    Map<Attribute, String> host = new EnumMap<>(Attribute.class);
    Map<Attribute, String> facts = new EnumMap<>(Attribute.class);
    put(facts, Attribute.ENGINE, "PostgreSQL");
    put(facts, Attribute.HOST_NAME, address.host());
    put(facts, Attribute.PORT, Integer.toString(address.port()));
    try (PreparedStatement statement = connection.prepareStatement(SETTINGS);
        ResultSet row = statement.executeQuery()) {
      row.next();
      ByteOrder.ofPlatform(row.getString("platform"))
          .ifPresent(order -> host.put(Attribute.BYTE_ORDER, order.label()));
      put(facts, Attribute.VERSION, row.getString("version").split(" ")[0]);
      for (Attribute attribute :
          List.of(
              Attribute.CACHE_BYTES,
              Attribute.MAX_CONNECTIONS,
              Attribute.LOG_MODE,
              Attribute.TIME_ZONE,
              Attribute.PAGE_CHECKSUMS,
              Attribute.TLS,
              Attribute.ROLES,
              Attribute.ROLES_WITH_ALL_RIGHTS,
              Attribute.REPLICATION_SLOTS,
              Attribute.LOG_RETENTION)) {
        put(facts, attribute, row.getString(attribute.column()));
      }
    }
    PartlyRead parts = new PartlyRead(instance, address.user(), unread);
    parts.attempt("replication", () -> readReplication(connection, facts));
    parts.attempt("libraries loaded at the start", () -> readPreloaded(connection, facts));
    objects.add(new ReadObject(ObjectKind.HOST, address.host(), "version()", host));
    objects.add(new ReadObject(ObjectKind.INSTANCE, instance, "pg_settings", facts));
  }

  private static void readReplication(Connection connection, Map<Attribute, String> facts)
      throws SQLException {
    try (PreparedStatement statement = connection.prepareStatement(REPLICATION);
        ResultSet row = statement.executeQuery()) {
      row.next();
      List<String> words = new ArrayList<>();
      if (row.getBoolean("follows")) {
        String sender = row.getString("sender");
        words.add("replica of " + (sender == null ? "a server that is not told" : sender));
      }
      if (row.getInt("followers") > 0) {
        words.add("source of " + row.getInt("followers"));
      }
      put(facts, Attribute.REPLICATION, words.isEmpty() ? "none" : String.join(", ", words));
    }
  }

  private void readPreloaded(Connection connection, Map<Attribute, String> facts)
      throws SQLException {
    try (PreparedStatement statement = connection.prepareStatement(PRELOADED);
        ResultSet row = statement.executeQuery()) {
      if (row.next()) {
        String libraries = row.getString(1);
        put(facts, Attribute.PLUGINS, libraries.isEmpty() ? "none" : libraries);
      } else {
        unread.add(
            "%s: libraries loaded at the start not readable; grant pg_read_all_settings to %s."
                .formatted(instance, address.user()));
      }
    }
  }

  private List<String> readDatabases(Connection connection) throws SQLException {
    List<String> reachable = new ArrayList<>();
    try (PreparedStatement statement = connection.prepareStatement(DATABASES);
        ResultSet row = statement.executeQuery()) {
      while (row.next()) {
        String name = row.getString("datname");
        Map<Attribute, String> facts = new EnumMap<>(Attribute.class);
        put(facts, Attribute.ENCODING, row.getString("encoding"));
        put(facts, Attribute.COLLATION, row.getString("collation"));
        if (row.getString("size_bytes") != null) {
          put(facts, Attribute.SIZE_BYTES, row.getString("size_bytes"));
        } else {
          unread.add(
              "%s: size not readable; grant pg_monitor to %s."
                  .formatted(key(name), address.user()));
        }
        objects.add(new ReadObject(ObjectKind.DATABASE, key(name), "pg_database", facts));
        if (row.getBoolean("may_connect")) {
          reachable.add(name);
        } else {
          unread.add(
              "%s: objects not readable; grant CONNECT on it to %s."
                  .formatted(key(name), address.user()));
        }
      }
    }
    return reachable;
  }

  /** What is inside the databases, some at a time, told in the order of their names. */
  private void readInside(List<String> databases) {
    ExecutorService workers =
        Executors.newFixedThreadPool(AT_A_TIME, work -> new Thread(work, "postgres-reader"));
    try {
      List<Future<PostgresInside>> all = new ArrayList<>();
      for (String database : databases) {
        Map<Attribute, String> facts = object(database).values();
        all.add(
            workers.submit(
                () -> PostgresInside.read(address.withDatabase(database), key(database), facts)));
      }
      for (Future<PostgresInside> each : all) {
        PostgresInside inside = each.get();
        ties.addAll(inside.ties());
        unread.addAll(inside.unread());
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new Unreachable("Reading %s was interrupted.".formatted(address), e);
    } catch (ExecutionException e) {
      throw new IllegalStateException(e.getCause());
    } finally {
      workers.shutdownNow();
    }
  }

  private ReadObject object(String database) {
    return objects.stream().filter(o -> o.key().equals(key(database))).findFirst().orElseThrow();
  }

  private String key(String database) {
    return new DatabaseKey(instance, database).toString();
  }

  static void put(Map<Attribute, String> facts, Attribute attribute, String value) {
    facts.put(attribute, attribute.type().canonical(value));
  }
}
