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
import org.jspecify.annotations.Nullable;
import org.transitum.core.inventory.Attribute;
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
             pg_size_bytes(current_setting('shared_buffers')) as cache_bytes,
             current_setting('max_connections') as max_connections,
             current_setting('wal_level') as log_mode,
             current_setting('TimeZone') as time_zone,
             current_setting('data_checksums') as page_checksums,
             current_setting('ssl') as tls,
             (select count(*) from pg_roles where rolname !~ '^pg_') as roles,
             (select count(*) from pg_roles where rolsuper) as roles_with_all_rights,
             (select count(*) from pg_replication_slots) as replication_slots,
             (select string_agg(setting || coalesce(' ' || unit, ''), ', ') from pg_settings
               where name in ('wal_keep_size', 'wal_keep_segments')) as log_retention
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

  private static final String LANGUAGES =
      """
      select string_agg(distinct l.lanname, ', ' order by l.lanname) as languages
        from pg_proc p join pg_language l on l.oid = p.prolang
        join pg_namespace n on n.oid = p.pronamespace
       where n.nspname !~ '^pg_' and n.nspname <> 'information_schema'
         and not exists (select from pg_depend d where d.objid = p.oid and d.deptype = 'e')
      """;
  private static final String BIGGEST =
      """
      select string_agg(name || ' ' || bytes / 1048576 || ' MiB', ', ') as tables from (
        select c.relname as name, pg_total_relation_size(c.oid) as bytes from pg_class c
          join pg_namespace n on n.oid = c.relnamespace
         where c.relkind = 'r' and n.nspname !~ '^pg_' and n.nspname <> 'information_schema'
         order by c.relpages desc, c.relname limit 3) as largest
      """;
  private static final String SCHEDULES = "select to_regclass('cron.job') is not null as there";
  private static final String JOBS = "select count(*) from cron.job";
  private static final String DATABASES =
      """
      select datname, pg_encoding_to_char(encoding) as encoding, datcollate as collation,
             has_database_privilege(datname, 'connect') as may_connect,
             case when has_database_privilege(datname, 'connect')
                    or pg_has_role('pg_read_all_stats', 'usage')
                  then pg_database_size(datname) end as size_bytes
        from pg_database where not datistemplate and datallowconn order by datname
      """;
  private static final String OBJECTS =
      """
      with own as (
        select c.oid, c.relkind from pg_class c join pg_namespace n on n.oid = c.relnamespace
         where n.nspname !~ '^pg_' and n.nspname <> 'information_schema' and c.relpersistence <> 't'
           and not exists (select from pg_depend d where d.objid = c.oid and d.deptype = 'e'))
      select count(*) filter (where relkind in ('r', 'p')) as tables,
             count(*) filter (where relkind in ('v', 'm')) as views,
             count(*) filter (where relkind = 'S') as sequences,
             count(*) filter (where relkind in ('r', 'p') and not exists (
               select from pg_constraint k where k.conrelid = own.oid and k.contype = 'p')) as tables_without_key,
             (select count(*) from pg_proc p join pg_namespace n on n.oid = p.pronamespace
               where n.nspname !~ '^pg_' and n.nspname <> 'information_schema'
                 and not exists (select from pg_depend d where d.objid = p.oid and d.deptype = 'e')) as routines,
             (select count(*) from pg_trigger where not tgisinternal) as triggers,
             (select count(*) from pg_largeobject_metadata) as large_objects,
             (select string_agg(extname, ', ' order by extname) from pg_extension
               where extname <> 'plpgsql') as extensions
        from own
      """;
  private static final int PG_PORT = 5432;

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
    reachable.forEach(this::readInside);
    Reading reading =
        new Reading(
            "server " + instance, Origin.OBSERVED, at, List.copyOf(objects), List.copyOf(unread));
    return new ServerReading(reading, List.copyOf(ties));
  }

  private void readInstance(Connection connection) throws SQLException {
    Map<Attribute, String> facts = new EnumMap<>(Attribute.class);
    put(facts, Attribute.ENGINE, "PostgreSQL");
    put(facts, Attribute.HOST_NAME, address.host());
    put(facts, Attribute.PORT, Integer.toString(address.port()));
    try (PreparedStatement statement = connection.prepareStatement(SETTINGS);
        ResultSet row = statement.executeQuery()) {
      row.next();
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
    attempt(instance, "replication", () -> readReplication(connection, facts));
    attempt(instance, "libraries loaded at the start", () -> readPreloaded(connection, facts));
    objects.add(new ReadObject(ObjectKind.HOST, address.host(), "connection", Map.of()));
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

  private void readInside(String database) {
    try (Connection connection = PostgresConnections.open(address.withDatabase(database))) {
      attempt(key(database), "object counts", () -> readObjects(connection, database));
      attempt(key(database), "routine languages", () -> readLanguages(connection, database));
      attempt(key(database), "biggest tables", () -> readBiggest(connection, database));
      attempt(key(database), "scheduled jobs", () -> readSchedules(connection, database));
      PostgresTies reader = new PostgresTies(connection, key(database), address);
      attempt(
          key(database), "foreign servers and tables", () -> ties.addAll(reader.foreignTables()));
      attempt(key(database), "dblink calls", () -> ties.addAll(reader.dblinkCalls()));
      attempt(key(database), "subscriptions", () -> ties.addAll(reader.subscriptions()));
    } catch (SQLException | Unreachable e) {
      unread.add("%s: %s".formatted(key(database), e.getMessage()));
    }
  }

  private interface Part {
    void read() throws SQLException;
  }

  private void attempt(String of, String what, Part part) {
    try {
      part.read();
    } catch (SQLException e) {
      String remedy =
          "42501".equals(e.getSQLState())
              ? "%s may not read them".formatted(address.user())
              : PostgresConnections.plain(e);
      unread.add("%s: %s not readable: %s.".formatted(of, what, remedy));
    }
  }

  private void readObjects(Connection connection, String database) throws SQLException {
    try (PreparedStatement statement = connection.prepareStatement(OBJECTS);
        ResultSet row = statement.executeQuery()) {
      row.next();
      ReadObject object = object(database);
      for (Attribute attribute :
          List.of(
              Attribute.TABLES,
              Attribute.TABLES_WITHOUT_KEY,
              Attribute.VIEWS,
              Attribute.ROUTINES,
              Attribute.SEQUENCES,
              Attribute.TRIGGERS,
              Attribute.LARGE_OBJECTS)) {
        put(object.values(), attribute, row.getString(attribute.column()));
      }
      String extensions = row.getString("extensions");
      put(object.values(), Attribute.EXTENSIONS, extensions == null ? "none" : extensions);
    }
  }

  private ReadObject object(String database) {
    return objects.stream().filter(o -> o.key().equals(key(database))).findFirst().orElseThrow();
  }

  private void readLanguages(Connection connection, String database) throws SQLException {
    String languages = single(connection, LANGUAGES);
    if (languages != null) {
      put(object(database).values(), Attribute.ROUTINE_LANGUAGES, languages);
    }
  }

  private void readBiggest(Connection connection, String database) throws SQLException {
    String tables = single(connection, BIGGEST);
    if (tables != null) {
      put(object(database).values(), Attribute.BIGGEST_TABLES, tables);
    }
  }

  private void readSchedules(Connection connection, String database) throws SQLException {
    boolean there = "t".equals(single(connection, SCHEDULES));
    String jobs = there ? single(connection, JOBS) : "0";
    put(object(database).values(), Attribute.EVENTS, jobs == null ? "0" : jobs);
  }

  private static @Nullable String single(Connection connection, String sql) throws SQLException {
    try (PreparedStatement statement = connection.prepareStatement(sql);
        ResultSet row = statement.executeQuery()) {
      return row.next() ? row.getString(1) : null;
    }
  }

  private String key(String database) {
    return new DatabaseKey(instance, database).toString();
  }

  private static void put(Map<Attribute, String> facts, Attribute attribute, String value) {
    facts.put(attribute, attribute.type().canonical(value));
  }

  static int defaultPort() {
    return PG_PORT;
  }
}
