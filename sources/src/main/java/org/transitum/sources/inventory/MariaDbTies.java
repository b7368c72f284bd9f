package org.transitum.sources.inventory;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.transitum.sources.inventory.ServerReading.SeenTie;

/**
 * Pointers to other databases seen on a MariaDB or MySQL server: qualified names of other schemas
 * in views, routines, triggers and events, and tables that live elsewhere. Passwords are never
 * taken up.
 */
final class MariaDbTies {
  private static final int MOST_LINKED = 500;
  private static final int EXAMPLES = 3;
  private static final String[][] BODIES = {
    {"view", "select table_schema, table_name, view_definition from information_schema.views"},
    {
      "routine",
      "select routine_schema, routine_name, routine_definition from information_schema.routines"
    },
    {
      "trigger",
      "select trigger_schema, trigger_name, action_statement from information_schema.triggers"
    },
    {"event", "select event_schema, event_name, event_definition from information_schema.events"}
  };
  private static final Pattern QUALIFIED =
      Pattern.compile(
          "(?:`([^`]+)`|\\b([A-Za-z_][\\w$]*))\\s*\\.\\s*(?:`([^`]+)`|([A-Za-z_][\\w$]*))");
  private static final Pattern NOISE =
      Pattern.compile(
          "'(?:[^'\\\\]|\\\\.|'')*'|\"(?:[^\"\\\\]|\\\\.)*\"|--[^\n]*|#[^\n]*|/\\*.*?\\*/",
          Pattern.DOTALL);
  private static final Pattern URL =
      Pattern.compile("\\w+://[^@'\"]*@?([^:/@'\"]+)(?::(\\d+))?/([^/'\"?]+)");
  private static final Pattern SETTING =
      Pattern.compile(
          "\\b(host|port|database|dbname|srv|server)\\b\\s*[= ]\\s*[\"']?([^\"',;\\s)]+)",
          Pattern.CASE_INSENSITIVE);

  private final Connection connection;
  private final String instance;
  private final ServerAddress here;
  private final Set<String> schemas;

  MariaDbTies(Connection connection, String instance, ServerAddress here, Set<String> schemas) {
    this.connection = connection;
    this.instance = instance;
    this.here = here;
    this.schemas = schemas;
  }

  /** Names of other schemas in what is stored as text, a few examples for each pair. */
  List<SeenTie> qualifiedNames() throws SQLException {
    Map<String, List<String>> found = new LinkedHashMap<>();
    for (String[] body : BODIES) {
      try (PreparedStatement statement = connection.prepareStatement(body[1]);
          ResultSet row = statement.executeQuery()) {
        while (row.next()) {
          String own = row.getString(1);
          String text = row.getString(3);
          if (schemas.contains(own) && text != null) {
            for (String other : named(text, own)) {
              found
                  .computeIfAbsent(own + "\n" + other, pair -> new ArrayList<>())
                  .add(body[0] + " " + own + "." + row.getString(2));
            }
          }
        }
      }
    }
    List<SeenTie> ties = new ArrayList<>();
    found.forEach(
        (pair, where) -> {
          String[] names = pair.split("\n");
          String how =
              where.size() <= EXAMPLES
                  ? "named in " + String.join(", ", where)
                  : "named in %d places, such as %s"
                      .formatted(where.size(), String.join(", ", where.subList(0, EXAMPLES)));
          ties.add(new SeenTie(instance + "/" + names[0], here.host(), here.port(), names[1], how));
        });
    return ties;
  }

  private List<String> named(String text, String own) {
    List<String> others = new ArrayList<>();
    Matcher name = QUALIFIED.matcher(NOISE.matcher(text).replaceAll(" "));
    while (name.find()) {
      String schema = name.group(1) == null ? name.group(2) : name.group(1);
      if (!schema.equals(own) && schemas.contains(schema) && !others.contains(schema)) {
        others.add(schema);
      }
    }
    return others;
  }

  /**
   * Where tables of the FEDERATED, CONNECT and Spider engines lead.
   *
   * @param tables schema and name of each
   */
  List<SeenTie> linkedTables(List<String[]> tables, boolean mayReadServers) throws SQLException {
    Map<String, Map<String, String>> servers = mayReadServers ? servers() : Map.of();
    Map<String, SeenTie> ties = new LinkedHashMap<>();
    for (String[] table : tables.subList(0, Math.min(MOST_LINKED, tables.size()))) {
      String definition = definition(table[0], table[1]);
      Map<String, String> target = target(definition, servers);
      String database = target.get("database");
      if (database == null) {
        continue;
      }
      String host = target.getOrDefault("host", here.host());
      String port = target.getOrDefault("port", "");
      SeenTie tie =
          new SeenTie(
              instance + "/" + table[0],
              host,
              port.matches("\\d{1,5}") ? Integer.parseInt(port) : defaultPort(host),
              database,
              "linked table %s.%s".formatted(table[0], table[1]));
      ties.putIfAbsent(tie.from() + " " + tie.host() + tie.port() + tie.database(), tie);
    }
    return List.copyOf(ties.values());
  }

  private int defaultPort(String host) {
    return host.equals(here.host()) ? here.port() : ReadableEngine.MARIADB.defaultPort();
  }

  private String definition(String schema, String table) throws SQLException {
    String quoted = "`%s`.`%s`".formatted(schema.replace("`", "``"), table.replace("`", "``"));
    try (Statement statement = connection.createStatement();
        ResultSet row = statement.executeQuery("show create table " + quoted)) {
      return row.next() ? row.getString(2) : "";
    }
  }

  private static Map<String, String> target(
      String definition, Map<String, Map<String, String>> servers) {
    Map<String, String> found = new HashMap<>();
    Matcher url = URL.matcher(definition);
    if (url.find()) {
      found.put("host", url.group(1));
      if (url.group(2) != null) {
        found.put("port", url.group(2));
      }
      found.put("database", url.group(3));
      return found;
    }
    int options = Math.max(0, definition.lastIndexOf(')'));
    Matcher setting = SETTING.matcher(definition.substring(options));
    while (setting.find()) {
      String name = setting.group(1).toLowerCase(Locale.ROOT);
      found.putIfAbsent(name.equals("dbname") ? "database" : name, setting.group(2));
    }
    String server = found.getOrDefault("srv", found.get("server"));
    Matcher named = Pattern.compile("CONNECTION='([^/':]+)(?:/[^']*)?'").matcher(definition);
    if (server == null && named.find()) {
      server = named.group(1);
    }
    if (server != null) {
      servers.getOrDefault(server, Map.of()).forEach(found::putIfAbsent);
    }
    return found;
  }

  private Map<String, Map<String, String>> servers() throws SQLException {
    Map<String, Map<String, String>> servers = new HashMap<>();
    try (Statement statement = connection.createStatement();
        ResultSet row =
            statement.executeQuery("select server_name, host, port, db from mysql.servers")) {
      while (row.next()) {
        Map<String, String> of = new HashMap<>();
        of.put("host", row.getString(2));
        of.put("port", row.getString(3));
        of.put("database", row.getString(4));
        servers.put(row.getString(1), of);
      }
    }
    return servers;
  }
}
