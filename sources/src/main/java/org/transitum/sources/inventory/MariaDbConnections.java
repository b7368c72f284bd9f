package org.transitum.sources.inventory;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.Properties;
import org.transitum.sources.inventory.ServerAddress.TlsMode;

/** Opens short-lived, read-only connections to MariaDB and MySQL with every wait bounded. */
public final class MariaDbConnections {
  private static final int CONNECT_MILLIS = 10_000;
  private static final int SOCKET_MILLIS = 60_000;
  private static final int STATEMENT_SECONDS = 20;

  private MariaDbConnections() {}

  /**
   * @throws Unreachable with the reason in words
   */
  public static Connection open(ServerAddress address) {
    try {
      return connect(address, sslMode(address.tls()));
    } catch (SQLException e) {
      if (address.tls() == TlsMode.PREFER && withoutTls(e)) {
        try {
          return connect(address, "disable");
        } catch (SQLException again) {
          throw new Unreachable(words(address, again), again);
        }
      }
      throw new Unreachable(Certificates.refusal(address, e).orElseGet(() -> words(address, e)), e);
    }
  }

  private static String sslMode(TlsMode mode) {
    return switch (mode) {
      case DISABLE -> "disable";
      case PREFER, REQUIRE -> "trust";
      case VERIFY -> "verify-full";
    };
  }

  private static boolean withoutTls(SQLException e) {
    String message = String.valueOf(e.getMessage()).toLowerCase(java.util.Locale.ROOT);
    return message.contains("ssl") || message.contains("tls");
  }

  private static Connection connect(ServerAddress address, String sslMode) throws SQLException {
    Properties properties = new Properties();
    properties.setProperty("user", address.user());
    properties.setProperty("password", address.password());
    properties.setProperty("sslMode", sslMode);
    properties.setProperty("connectTimeout", Integer.toString(CONNECT_MILLIS));
    properties.setProperty("socketTimeout", Integer.toString(SOCKET_MILLIS));
    properties.setProperty("allowLocalInfile", "false");
    properties.setProperty("allowPublicKeyRetrieval", "true");
    properties.setProperty("connectionAttributes", "program_name:transitum");
    Connection connection =
        DriverManager.getConnection(
            "jdbc:mariadb://%s:%d/".formatted(address.hostInUrl(), address.port()), properties);
    for (String bound :
        List.of(
            "set session transaction read only",
            "set session lock_wait_timeout = 2",
            // the first two are MariaDB's and MySQL's word for the same; the third keeps sizes
            // fresh
            "set session max_statement_time = " + STATEMENT_SECONDS,
            "set session max_execution_time = " + STATEMENT_SECONDS * 1_000,
            "set session information_schema_stats_expiry = 0")) {
      tryTo(connection, bound);
    }
    return connection;
  }

  /** Not every version knows every setting. */
  private static void tryTo(Connection connection, String setting) {
    try (Statement statement = connection.createStatement()) {
      statement.execute(setting);
    } catch (SQLException e) {
      // an unknown setting leaves the socket's limit, which always holds
    }
  }

  private static String words(ServerAddress address, SQLException e) {
    String where = "%s:%d".formatted(address.host(), address.port());
    return switch (e.getErrorCode()) {
      case 1045, 1698 ->
          "%s refused the password of %s. Check user and password, and from which hosts the user may come."
              .formatted(where, address.user());
      case 1130 -> "%s lets nobody in from here. Create the user for this host.".formatted(where);
      case 1040, 1203 -> "%s has no connection left. Try again later.".formatted(where);
      case 1129 ->
          "%s has blocked this host after too many errors. Have FLUSH HOSTS run there."
              .formatted(where);
      default ->
          "%s was not reached within %d s: %s. Check host, port, firewall and TLS mode."
              .formatted(where, CONNECT_MILLIS / 1_000, plain(e));
    };
  }

  /** The first line of what the server says, without the driver's connection number. */
  static String plain(SQLException e) {
    String message = e.getMessage() == null ? "no reason given" : e.getMessage();
    return message
        .lines()
        .findFirst()
        .orElse(message)
        .replaceFirst("^\\(conn=\\d+\\) ", "")
        .strip()
        .replaceAll("\\.$", "");
  }
}
