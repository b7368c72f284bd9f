package org.transitum.sources.inventory;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.transitum.sources.inventory.ServerReading.SeenTie;

/**
 * Pointers to other databases seen inside one PostgreSQL database. Passwords are never taken up.
 */
final class PostgresTies {
  private static final String FOREIGN =
      """
      select s.srvname, array_to_string(s.srvoptions, chr(10)) as options,
             count(t.ftrelid) as tables,
             min(n.nspname || '.' || c.relname) as example
        from pg_foreign_server s
        join pg_foreign_data_wrapper w on w.oid = s.srvfdw and w.fdwname in ('postgres_fdw', 'dblink_fdw')
        left join pg_foreign_table t on t.ftserver = s.oid
        left join pg_class c on c.oid = t.ftrelid
        left join pg_namespace n on n.oid = c.relnamespace
       group by s.srvname, s.srvoptions order by s.srvname
      """;
  private static final String DBLINK =
      """
      select n.nspname || '.' || p.proname as name, p.prosrc as body from pg_proc p
        join pg_namespace n on n.oid = p.pronamespace
       where p.prosrc ~ 'dblink' and n.nspname !~ '^pg_'
         and not exists (select from pg_depend d where d.objid = p.oid and d.deptype = 'e')
      union all
      select schemaname || '.' || viewname, definition from pg_views
       where definition ~ 'dblink' and schemaname !~ '^pg_'
      """;
  private static final String SUBSCRIPTIONS =
      """
      select subname, subconninfo from pg_subscription s
       where subdbid = (select oid from pg_database where datname = current_database())
      """;

  /** Where they go needs a superuser; how many there are, anybody may see. */
  private static final String SUBSCRIPTION_COUNT =
      """
      select count(*) from pg_subscription s
       where subdbid = (select oid from pg_database where datname = current_database())
      """;

  private static final Pattern CONNINFO =
      Pattern.compile("dblink\\w*\\s*\\([^)]*?'([^']*(?:dbname|host)\\s*=[^']*)'");
  private static final Pattern OPTION = Pattern.compile("(\\w+)\\s*=\\s*('([^']*)'|[^\\s']+)");

  private final Connection connection;
  private final String database;
  private final ServerAddress here;

  PostgresTies(Connection connection, String database, ServerAddress here) {
    this.connection = connection;
    this.database = database;
    this.here = here;
  }

  List<SeenTie> foreignTables() throws SQLException {
    List<SeenTie> ties = new ArrayList<>();
    try (PreparedStatement statement = connection.prepareStatement(FOREIGN);
        ResultSet row = statement.executeQuery()) {
      while (row.next()) {
        String options = row.getString("options") == null ? "" : row.getString("options");
        int tables = row.getInt("tables");
        String how =
            tables == 0
                ? "foreign server %s without tables".formatted(row.getString("srvname"))
                : tables == 1
                    ? "foreign table %s".formatted(row.getString("example"))
                    : "%d foreign tables over %s, such as %s"
                        .formatted(tables, row.getString("srvname"), row.getString("example"));
        ties.add(tie(options, how));
      }
    }
    return ties;
  }

  List<SeenTie> dblinkCalls() throws SQLException {
    List<SeenTie> ties = new ArrayList<>();
    try (PreparedStatement statement = connection.prepareStatement(DBLINK);
        ResultSet row = statement.executeQuery()) {
      while (row.next()) {
        Matcher call = CONNINFO.matcher(row.getString("body"));
        while (call.find()) {
          ties.add(tie(call.group(1), "dblink call in " + row.getString("name")));
        }
      }
    }
    return ties;
  }

  List<SeenTie> subscriptions() throws SQLException {
    List<SeenTie> ties = new ArrayList<>();
    try (PreparedStatement statement = connection.prepareStatement(SUBSCRIPTION_COUNT);
        ResultSet row = statement.executeQuery()) {
      row.next();
      if (row.getInt(1) == 0) {
        return ties;
      }
    }
    try (PreparedStatement statement = connection.prepareStatement(SUBSCRIPTIONS);
        ResultSet row = statement.executeQuery()) {
      while (row.next()) {
        ties.add(tie(row.getString("subconninfo"), "subscription " + row.getString("subname")));
      }
    }
    return ties;
  }

  private SeenTie tie(String options, String how) {
    Map<String, String> found = new HashMap<>();
    Matcher option = OPTION.matcher(options);
    while (option.find()) {
      String value = option.group(3) == null ? option.group(2) : option.group(3);
      found.put(option.group(1).toLowerCase(Locale.ROOT), value);
    }
    String host = found.getOrDefault("host", found.getOrDefault("hostaddr", here.host()));
    boolean samePort = !found.containsKey("port") && host.equals(here.host());
    int port = samePort ? here.port() : port(found.getOrDefault("port", ""));
    String target = found.getOrDefault("dbname", database.substring(database.indexOf('/') + 1));
    return new SeenTie(database, host, port, target, how);
  }

  private static int port(String text) {
    return text.matches("\\d{1,5}")
        ? Integer.parseInt(text)
        : ReadableEngine.POSTGRESQL.defaultPort();
  }
}
