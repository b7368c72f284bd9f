package org.transitum.sources.inventory;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Properties;
import org.postgresql.ssl.DefaultJavaSSLFactory;
import org.transitum.sources.inventory.ServerAddress.TlsMode;

/** Opens short-lived, read-only connections with every wait bounded. */
public final class PostgresConnections {
  private static final int CONNECT_SECONDS = 10;
  private static final int SOCKET_SECONDS = 60;
  private static final int STATEMENT_MILLIS = 20_000;

  private PostgresConnections() {}

  /**
   * @throws Unreachable with the reason in words
   */
  public static Connection open(ServerAddress address) {
    Properties properties = new Properties();
    properties.setProperty("user", address.user());
    properties.setProperty("password", address.password());
    properties.setProperty("sslmode", address.tls().sslMode());
    if (address.tls() == TlsMode.VERIFY) {
      // authorities are those that Java trusts, as for every other kind of server
      properties.setProperty("sslfactory", DefaultJavaSSLFactory.class.getName());
    }
    properties.setProperty("connectTimeout", Integer.toString(CONNECT_SECONDS));
    properties.setProperty("loginTimeout", Integer.toString(CONNECT_SECONDS));
    properties.setProperty("socketTimeout", Integer.toString(SOCKET_SECONDS));
    properties.setProperty("ApplicationName", "transitum");
    properties.setProperty("readOnly", "true");
    try {
      Connection connection = DriverManager.getConnection(url(address), properties);
      try (Statement statement = connection.createStatement()) {
        statement.execute("set statement_timeout = " + STATEMENT_MILLIS);
        statement.execute("set lock_timeout = 2000");
      }
      return connection;
    } catch (SQLException e) {
      throw new Unreachable(Certificates.refusal(address, e).orElseGet(() -> words(address, e)), e);
    }
  }

  /** The host is checked and the database encoded, so that neither can smuggle in parameters. */
  private static String url(ServerAddress address) {
    return "jdbc:postgresql://%s:%d/%s"
        .formatted(
            address.hostInUrl(),
            address.port(),
            URLEncoder.encode(address.database(), StandardCharsets.UTF_8));
  }

  private static String words(ServerAddress address, SQLException e) {
    String state = e.getSQLState() == null ? "" : e.getSQLState();
    String where = "%s:%d".formatted(address.host(), address.port());
    return switch (state) {
      case "28P01" ->
          "%s refused the password of %s. Check user and password."
              .formatted(where, address.user());
      case "28000" ->
          "%s does not let %s in from here. Its pg_hba.conf must allow this user, database and address%s."
              .formatted(where, address.user(), ", with or without TLS as chosen");
      case "3D000" ->
          "%s has no database \"%s\". Name one that exists.".formatted(where, address.database());
      case "42501" ->
          "%s may not connect to \"%s\" on %s. Grant CONNECT on it."
              .formatted(address.user(), address.database(), where);
      case "53300" -> "%s has no connection left. Try again later.".formatted(where);
      case "08001", "08004", "08006" ->
          "%s was not reached within %d s: %s. Check host, port, firewall and TLS mode."
              .formatted(where, CONNECT_SECONDS, plain(e).split("\\. ", 2)[0]);
      default -> "%s could not be read: %s.".formatted(where, plain(e));
    };
  }

  static String plain(SQLException e) {
    String message = e.getMessage() == null ? "no reason given" : e.getMessage();
    return message.lines().findFirst().orElse(message).strip().replaceAll("\\.$", "");
  }
}
