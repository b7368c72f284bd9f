package org.transitum.sources.inventory;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.transitum.core.inventory.Attribute;
import org.transitum.sources.inventory.ServerReading.SeenTie;

/**
 * What is inside one PostgreSQL database: its facts are put where they belong, its ties and what
 * could not be read are kept here.
 */
record PostgresInside(List<SeenTie> ties, List<String> unread) {

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

  /**
   * @param key of the database
   * @param facts takes what is found
   */
  static PostgresInside read(ServerAddress address, String key, Map<Attribute, String> facts) {
    PostgresInside inside = new PostgresInside(new ArrayList<>(), new ArrayList<>());
    try (Connection connection = PostgresConnections.open(address)) {
      inside.read(connection, address, key, facts);
    } catch (SQLException | Unreachable e) {
      inside.unread.add("%s: %s".formatted(key, e.getMessage()));
    }
    return inside;
  }

  private void read(
      Connection connection, ServerAddress address, String key, Map<Attribute, String> facts) {
    PartlyRead parts = new PartlyRead(key, address.user(), unread);
    parts.attempt("object counts", () -> readObjects(connection, facts));
    parts.attempt(
        "routine languages",
        () -> put(facts, Attribute.ROUTINE_LANGUAGES, single(connection, LANGUAGES)));
    parts.attempt(
        "biggest tables", () -> put(facts, Attribute.BIGGEST_TABLES, single(connection, BIGGEST)));
    parts.attempt("scheduled jobs", () -> readSchedules(connection, facts));
    PostgresTies reader = new PostgresTies(connection, key, address);
    parts.attempt("foreign servers and tables", () -> ties.addAll(reader.foreignTables()));
    parts.attempt("dblink calls", () -> ties.addAll(reader.dblinkCalls()));
    parts.attempt("subscriptions", () -> ties.addAll(reader.subscriptions()));
  }

  private static void readObjects(Connection connection, Map<Attribute, String> facts)
      throws SQLException {
    try (PreparedStatement statement = connection.prepareStatement(OBJECTS);
        ResultSet row = statement.executeQuery()) {
      row.next();
      for (Attribute attribute :
          List.of(
              Attribute.TABLES,
              Attribute.TABLES_WITHOUT_KEY,
              Attribute.VIEWS,
              Attribute.ROUTINES,
              Attribute.SEQUENCES,
              Attribute.TRIGGERS,
              Attribute.LARGE_OBJECTS)) {
        put(facts, attribute, row.getString(attribute.column()));
      }
      String extensions = row.getString("extensions");
      put(facts, Attribute.EXTENSIONS, extensions == null ? "none" : extensions);
    }
  }

  private static void readSchedules(Connection connection, Map<Attribute, String> facts)
      throws SQLException {
    boolean there = "t".equals(single(connection, SCHEDULES));
    String jobs = there ? single(connection, JOBS) : "0";
    put(facts, Attribute.EVENTS, jobs == null ? "0" : jobs);
  }

  private static @Nullable String single(Connection connection, String sql) throws SQLException {
    try (PreparedStatement statement = connection.prepareStatement(sql);
        ResultSet row = statement.executeQuery()) {
      return row.next() ? row.getString(1) : null;
    }
  }

  private static void put(
      Map<Attribute, String> facts, Attribute attribute, @Nullable String value) {
    if (value != null) {
      PostgresReader.put(facts, attribute, value);
    }
  }
}
