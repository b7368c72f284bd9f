package org.transitum.sources.inventory;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.ByteOrder;
import org.transitum.core.inventory.DatabaseKey;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.core.inventory.Origin;
import org.transitum.core.inventory.Reading;
import org.transitum.core.inventory.Reading.ReadObject;
import org.transitum.sources.inventory.ServerReading.SeenTie;

/**
 * Reads a live MariaDB or MySQL server without writing anything. The number of statements does not
 * grow with the number of schemas, only with that of tables that live elsewhere. What the account
 * may not see is named, as the server shows it as none.
 */
public final class MariaDbReader {
  private static final Set<String> OWN =
      Set.of("mysql", "information_schema", "performance_schema", "sys");
  private static final Set<String> ELSEWHERE = Set.of("FEDERATED", "CONNECT", "SPIDER");
  private static final Pattern SOURCE =
      Pattern.compile("(?:from|join)\\s*\\(*\\s*`([^`]+)`\\.`([^`]+)`", Pattern.CASE_INSENSITIVE);
  private static final int BIGGEST = 3;
  private static final int LISTED = 5;
  private static final long MIB = 1L << 20;

  private static final String VARIABLES =
      """
      show global variables where variable_name in ('version', 'version_comment',
        'innodb_buffer_pool_size', 'max_connections', 'log_bin', 'binlog_format',
        'binlog_expire_logs_seconds', 'expire_logs_days', 'time_zone', 'system_time_zone',
        'sql_mode', 'lower_case_table_names', 'have_ssl', 'ssl_cert', 'innodb_checksum_algorithm',
        'version_compile_machine')
      """;
  private static final String TABLES =
      """
      select table_schema, table_name, table_type, engine,
             coalesce(data_length, 0) + coalesce(index_length, 0) as bytes, table_comment
        from information_schema.tables
      """;

  /** What is counted for one schema. */
  private static final class Schema {
    private final Map<Attribute, String> facts = new EnumMap<>(Attribute.class);
    private final Map<String, Integer> engines = new TreeMap<>();
    private final Map<String, Long> sizes = new HashMap<>();
    private final Set<String> names = new HashSet<>();
    private final Set<String> brokenViews = new HashSet<>();
    private int tables;
    private int keyed;
    private int views;
    private long bytes;
  }

  private final ServerAddress address;
  private final String instance;
  private final Instant at;
  private final Map<String, Schema> schemas = new LinkedHashMap<>();
  private final List<String[]> linked = new ArrayList<>();
  private final List<SeenTie> ties = new ArrayList<>();
  private final List<String> unread = new ArrayList<>();
  private final Map<String, List<String>> unseen = new LinkedHashMap<>();
  private final Map<Attribute, String> server = new EnumMap<>(Attribute.class);
  private final Map<Attribute, String> host = new EnumMap<>(Attribute.class);
  private MariaDbGrants grants = new MariaDbGrants(List.of());
  private MariaDbVersion version = MariaDbVersion.of("", "");

  private MariaDbReader(ServerAddress address, String instance, Instant at) {
    this.address = address;
    this.instance = instance;
    this.at = at;
  }

  /** See {@link ServerReader#read}. */
  public static ServerReading read(ServerAddress address, String instance, Instant at) {
    return new MariaDbReader(address, instance, at).run();
  }

  private ServerReading run() {
    try (Connection connection = MariaDbConnections.open(address)) {
      readServer(connection);
      readSchemas(connection);
      readGrants(connection);
      attempt("tables and views", () -> readTables(connection));
      attempt("broken views", () -> readBrokenViews(connection));
      attempt("keys", () -> readKeys(connection));
      attempt("routines", () -> readRoutines(connection));
      attempt("triggers", () -> readTriggers(connection));
      attempt("events", () -> readEvents(connection));
      attempt("users", () -> readUsers(connection));
      attempt("plug-ins", () -> readPlugins(connection));
      attempt("replication", () -> readReplication(connection));
      MariaDbTies reader = new MariaDbTies(connection, instance, address, schemas.keySet());
      attempt("names of other schemas", () -> ties.addAll(reader.qualifiedNames()));
      attempt("linked tables", () -> readLinked(reader));
    } catch (SQLException e) {
      throw new Unreachable("%s broke off: %s.".formatted(address, MariaDbConnections.plain(e)), e);
    }
    tellUnseen();
    return new ServerReading(
        new Reading(
            ServerReading.source(instance), Origin.OBSERVED, at, objects(), List.copyOf(unread)),
        List.copyOf(ties));
  }

  private List<ReadObject> objects() {
    List<ReadObject> objects = new ArrayList<>();
    objects.add(new ReadObject(ObjectKind.HOST, address.host(), "global variables", host));
    objects.add(new ReadObject(ObjectKind.INSTANCE, instance, "global variables", server));
    schemas.forEach(
        (name, schema) ->
            objects.add(
                new ReadObject(
                    ObjectKind.DATABASE,
                    new DatabaseKey(instance, name).toString(),
                    "information_schema",
                    schema.facts)));
    return objects;
  }

  private interface Part {
    void read() throws SQLException;
  }

  private void attempt(String what, Part part) {
    try {
      part.read();
    } catch (SQLException e) {
      unread.add("%s: %s not readable: %s.".formatted(instance, what, MariaDbConnections.plain(e)));
    }
  }

  private interface Each {
    void take(ResultSet row) throws SQLException;
  }

  private static void query(Connection connection, String sql, Each each) throws SQLException {
    try (Statement statement = connection.createStatement();
        ResultSet row = statement.executeQuery(sql)) {
      while (row.next()) {
        each.take(row);
      }
    }
  }

  private static void put(Map<Attribute, String> facts, Attribute attribute, String value) {
    facts.put(attribute, attribute.type().canonical(value));
  }

  private static void putIfTold(
      Map<Attribute, String> facts, Attribute attribute, @Nullable String value) {
    if (value != null && !value.isEmpty()) {
      put(facts, attribute, value);
    }
  }

  private void readServer(Connection connection) throws SQLException {
    Map<String, String> variables = new HashMap<>();
    query(
        connection,
        VARIABLES,
        row -> variables.put(row.getString(1).toLowerCase(Locale.ROOT), row.getString(2)));
    version =
        MariaDbVersion.of(
            variables.getOrDefault("version", ""), variables.getOrDefault("version_comment", ""));
    put(server, Attribute.ENGINE, version.engine());
    put(server, Attribute.VERSION, version.number());
    putIfTold(server, Attribute.EDITION, variables.get("version_comment"));
    put(server, Attribute.HOST_NAME, address.host());
    put(server, Attribute.PORT, Integer.toString(address.port()));
    putIfTold(server, Attribute.CACHE_BYTES, variables.get("innodb_buffer_pool_size"));
    putIfTold(server, Attribute.MAX_CONNECTIONS, variables.get("max_connections"));
    ByteOrder.ofPlatform(variables.getOrDefault("version_compile_machine", ""))
        .ifPresent(order -> put(host, Attribute.BYTE_ORDER, order.label()));
    boolean logs = "ON".equals(variables.get("log_bin"));
    put(
        server,
        Attribute.LOG_MODE,
        logs ? "binary log, " + variables.getOrDefault("binlog_format", "?") : "no binary log");
    put(server, Attribute.LOG_RETENTION, logs ? retention(variables) : "none");
    String zone = variables.getOrDefault("time_zone", "");
    put(
        server,
        Attribute.TIME_ZONE,
        "SYSTEM".equals(zone)
            ? variables.getOrDefault("system_time_zone", zone) + " (system)"
            : zone);
    String mode = variables.getOrDefault("sql_mode", "");
    put(server, Attribute.SQL_MODE, mode.isEmpty() ? "none" : mode);
    putIfTold(server, Attribute.LOWER_CASE_TABLE_NAMES, variables.get("lower_case_table_names"));
    boolean tls =
        "YES".equals(variables.get("have_ssl"))
            || (!variables.containsKey("have_ssl")
                && !variables.getOrDefault("ssl_cert", "").isEmpty());
    put(server, Attribute.TLS, tls ? "yes" : "no");
    put(
        server,
        Attribute.PAGE_CHECKSUMS,
        "none".equals(variables.get("innodb_checksum_algorithm")) ? "no" : "yes");
  }

  private static String retention(Map<String, String> variables) {
    long seconds = Long.parseLong(variables.getOrDefault("binlog_expire_logs_seconds", "0"));
    double days =
        seconds > 0
            ? seconds / 86_400.0
            : Double.parseDouble(variables.getOrDefault("expire_logs_days", "0"));
    return days > 0 ? "%s days".formatted(Math.round(days * 10) / 10.0) : "kept for ever";
  }

  private void readSchemas(Connection connection) throws SQLException {
    query(
        connection,
        "select schema_name, default_character_set_name, default_collation_name from information_schema.schemata order by schema_name",
        row -> {
          if (!OWN.contains(row.getString(1).toLowerCase(Locale.ROOT))) {
            Schema schema = new Schema();
            put(schema.facts, Attribute.ENCODING, row.getString(2));
            put(schema.facts, Attribute.COLLATION, row.getString(3));
            schemas.put(row.getString(1), schema);
          }
        });
  }

  private void readGrants(Connection connection) throws SQLException {
    List<String> lines = new ArrayList<>();
    query(connection, "show grants", row -> lines.add(row.getString(1)));
    grants = new MariaDbGrants(lines);
    if (!grants.has("*", "SHOW DATABASES")) {
      unread.add(
          "%s: other schemas may exist; grant SHOW DATABASES ON *.* to %s."
              .formatted(instance, address.user()));
    }
  }

  /** Whether the account sees all of something in a schema; notes it where it does not. */
  private boolean sees(String schema, String what, String... rights) {
    if (grants.has(schema, rights)) {
      return true;
    }
    unseen
        .computeIfAbsent(
            "%s not readable; grant %s ON ".formatted(what, rights[0]), k -> new ArrayList<>())
        .add(schema);
    return false;
  }

  /** One line for each thing that is not seen, however many schemas it is not seen in. */
  private void tellUnseen() {
    unseen.forEach(
        (what, in) ->
            unread.add(
                in.size() == schemas.size()
                    ? "%s: %s*.* to %s.".formatted(instance, what, address.user())
                    : "%s, %s: %s%s to %s."
                        .formatted(
                            instance,
                            some(in),
                            what,
                            in.size() == 1 ? "`" + in.get(0) + "`.*" : "them",
                            address.user())));
  }

  private static String some(List<String> names) {
    return names.size() <= LISTED
        ? String.join(", ", names)
        : "%s and %d more"
            .formatted(String.join(", ", names.subList(0, LISTED)), names.size() - LISTED);
  }

  private void readTables(Connection connection) throws SQLException {
    query(
        connection,
        TABLES,
        row -> {
          Schema schema = schemas.get(row.getString("table_schema"));
          if (schema != null) {
            count(schema, row);
          }
        });
    schemas.forEach(
        (name, schema) -> {
          put(schema.facts, Attribute.TABLES, Integer.toString(schema.tables));
          put(schema.facts, Attribute.SIZE_BYTES, Long.toString(schema.bytes));
          if (!schema.engines.isEmpty()) {
            put(
                schema.facts,
                Attribute.STORAGE_ENGINES,
                String.join(", ", schema.engines.keySet()));
          }
          if (schema.bytes > 0) {
            put(schema.facts, Attribute.BIGGEST_TABLES, biggest(schema));
          }
          if (sees(name, "views", "SHOW VIEW")) {
            put(schema.facts, Attribute.VIEWS, Integer.toString(schema.views));
          }
        });
  }

  private void count(Schema schema, ResultSet row) throws SQLException {
    String comment = String.valueOf(row.getString("table_comment"));
    schema.names.add(row.getString("table_name").toLowerCase(Locale.ROOT));
    if (row.getString("table_type").contains("VIEW")) {
      schema.views++;
      if (comment.contains("references invalid")) {
        schema.brokenViews.add(row.getString("table_name"));
      }
      return;
    }
    if (!row.getString("table_type").equals("BASE TABLE")) {
      return;
    }
    schema.tables++;
    String engine = row.getString("engine");
    if (engine == null) {
      return;
    }
    schema.engines.merge(engine, 1, Integer::sum);
    String table = row.getString("table_name");
    // the size of a linked table is that of the other server's
    if (ELSEWHERE.contains(engine.toUpperCase(Locale.ROOT))) {
      linked.add(new String[] {row.getString("table_schema"), table});
      return;
    }
    schema.bytes += row.getLong("bytes");
    schema.sizes.put(table, row.getLong("bytes"));
  }

  /** The server says of some views that they are broken; others name tables that are not there. */
  private void readBrokenViews(Connection connection) throws SQLException {
    query(
        connection,
        "select table_schema, table_name, view_definition from information_schema.views where table_schema not in ('mysql', 'sys')",
        row -> {
          Schema schema = schemas.get(row.getString(1));
          String definition = row.getString(3);
          if (schema != null && definition != null && namesWhatIsGone(definition)) {
            schema.brokenViews.add(row.getString(2));
          }
        });
    schemas.forEach(
        (name, schema) -> {
          if (sees(name, "broken views and what views name", "SELECT")) {
            put(schema.facts, Attribute.BROKEN_VIEWS, Integer.toString(schema.brokenViews.size()));
          }
        });
  }

  private boolean namesWhatIsGone(String definition) {
    Matcher source = SOURCE.matcher(definition);
    while (source.find()) {
      Schema schema = schemas.get(source.group(1));
      if (schema != null && !schema.names.contains(source.group(2).toLowerCase(Locale.ROOT))) {
        return true;
      }
    }
    return false;
  }

  private static String biggest(Schema schema) {
    return schema.sizes.entrySet().stream()
        .sorted(
            Map.Entry.<String, Long>comparingByValue(Comparator.reverseOrder())
                .thenComparing(Map.Entry.comparingByKey()))
        .limit(BIGGEST)
        .map(entry -> "%s %d MiB".formatted(entry.getKey(), entry.getValue() / MIB))
        .collect(Collectors.joining(", "));
  }

  private void readKeys(Connection connection) throws SQLException {
    query(
        connection,
        "select table_schema, table_name from information_schema.statistics where index_name = 'PRIMARY' and seq_in_index = 1",
        row -> {
          Schema schema = schemas.get(row.getString(1));
          if (schema != null) {
            schema.keyed += schema.sizes.containsKey(row.getString(2)) ? 1 : 0;
          }
        });
    schemas.forEach(
        (name, schema) ->
            put(
                schema.facts,
                Attribute.TABLES_WITHOUT_KEY,
                Integer.toString(schema.sizes.size() - schema.keyed)));
  }

  private void readRoutines(Connection connection) throws SQLException {
    Map<String, Integer> counts = new HashMap<>();
    Map<String, Set<String>> languages = new HashMap<>();
    query(
        connection,
        "select routine_schema, coalesce(external_language, routine_body) as language, count(*) as routines from information_schema.routines group by 1, 2",
        row -> {
          counts.merge(row.getString(1), row.getInt(3), Integer::sum);
          languages
              .computeIfAbsent(row.getString(1), schema -> new TreeSet<>())
              .add(row.getString(2));
        });
    boolean all = grants.reads("mysql", "proc") || grants.has("*", "SHOW_ROUTINE");
    schemas.forEach(
        (name, schema) -> {
          if (all || sees(name, "routines", "EXECUTE", "ALTER ROUTINE", "CREATE ROUTINE")) {
            put(schema.facts, Attribute.ROUTINES, Integer.toString(counts.getOrDefault(name, 0)));
            Set<String> of = languages.getOrDefault(name, Set.of());
            if (!of.isEmpty()) {
              put(schema.facts, Attribute.ROUTINE_LANGUAGES, String.join(", ", of));
            }
          }
        });
  }

  private void readTriggers(Connection connection) throws SQLException {
    counts(
        connection,
        "select trigger_schema, count(*) from information_schema.triggers group by trigger_schema",
        Attribute.TRIGGERS,
        "triggers",
        "TRIGGER");
  }

  private void readEvents(Connection connection) throws SQLException {
    counts(
        connection,
        "select event_schema, count(*) from information_schema.events group by event_schema",
        Attribute.EVENTS,
        "events",
        "EVENT");
  }

  private void counts(
      Connection connection, String sql, Attribute attribute, String what, String right)
      throws SQLException {
    Map<String, Integer> counts = new HashMap<>();
    query(connection, sql, row -> counts.put(row.getString(1), row.getInt(2)));
    schemas.forEach(
        (name, schema) -> {
          if (sees(name, what, right)) {
            put(schema.facts, attribute, Integer.toString(counts.getOrDefault(name, 0)));
          }
        });
  }

  private void readUsers(Connection connection) throws SQLException {
    if (!grants.reads("mysql", "user")) {
      unread.add(
          "%s: users not readable; grant SELECT ON mysql.user to %s."
              .formatted(instance, address.user()));
      return;
    }
    query(
        connection,
        "select count(*), coalesce(sum(super_priv = 'Y'), 0) from mysql.user",
        row -> {
          put(server, Attribute.ROLES, row.getString(1));
          put(server, Attribute.ROLES_WITH_ALL_RIGHTS, row.getString(2));
        });
  }

  private void readPlugins(Connection connection) throws SQLException {
    Set<String> names = new TreeSet<>();
    query(
        connection,
        "select plugin_name from information_schema.plugins where plugin_library is not null and plugin_status = 'ACTIVE'",
        row -> names.add(row.getString(1)));
    put(server, Attribute.PLUGINS, names.isEmpty() ? "none" : String.join(", ", names));
  }

  private void readReplication(Connection connection) throws SQLException {
    List<String> words = new ArrayList<>();
    query(
        connection,
        version.replicaStatus(),
        row -> {
          String host = column(row, "Source_Host", "Master_Host");
          String port = column(row, "Source_Port", "Master_Port");
          String runs = column(row, "Replica_SQL_Running", "Slave_SQL_Running");
          words.add(
              "replica of %s:%s%s".formatted(host, port, "Yes".equals(runs) ? "" : ", stopped"));
        });
    query(
        connection,
        "select count(*) from information_schema.processlist where command like 'Binlog Dump%'",
        row -> {
          if (row.getInt(1) > 0) {
            words.add("source of " + row.getInt(1));
          }
        });
    if (grants.has("*", "PROCESS")) {
      put(server, Attribute.REPLICATION, words.isEmpty() ? "none" : String.join(", ", words));
    } else {
      unread.add(
          "%s: replicas that read from it not readable; grant PROCESS ON *.* to %s."
              .formatted(instance, address.user()));
    }
  }

  private static String column(ResultSet row, String... names) throws SQLException {
    ResultSetMetaData columns = row.getMetaData();
    for (int i = 1; i <= columns.getColumnCount(); i++) {
      for (String name : names) {
        if (columns.getColumnLabel(i).equalsIgnoreCase(name)) {
          return String.valueOf(row.getString(i));
        }
      }
    }
    return "unknown";
  }

  private void readLinked(MariaDbTies reader) throws SQLException {
    if (linked.isEmpty()) {
      return;
    }
    boolean servers = grants.reads("mysql", "servers");
    if (!servers) {
      unread.add(
          "%s: targets of linked tables not readable in part; grant SELECT ON mysql.servers to %s."
              .formatted(instance, address.user()));
    }
    ties.addAll(reader.linkedTables(linked, servers));
  }
}
