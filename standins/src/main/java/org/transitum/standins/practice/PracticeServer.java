package org.transitum.standins.practice;

import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Comparator;
import java.util.List;
import java.util.UUID;
import java.util.stream.Stream;

/**
 * A real PostgreSQL on a free loopback port with a handful of small, tied databases. Its passwords
 * are public; it holds nothing but made-up rows.
 */
public final class PracticeServer implements AutoCloseable {
  public static final String USER = "transitum";
  public static final String PASSWORD = "practice";

  /** Those that others point to come first. */
  static final List<String> DATABASES =
      List.of("customers", "stock", "orders", "invoices", "reports");

  private static final String SUPERUSER = "postgres";
  private static final String APP = "app";
  private static final int FIRST_COPY_SECONDS = 60;

  private final EmbeddedPostgres postgres;
  private final String superPassword = UUID.randomUUID().toString();

  private PracticeServer(EmbeddedPostgres postgres) {
    this.postgres = postgres;
  }

  /**
   * @param folder for the server's files; emptied first
   */
  public static PracticeServer start(Path folder) throws IOException, SQLException {
    Files.createDirectories(folder);
    clean(folder.resolve("data"));
    EmbeddedPostgres postgres =
        EmbeddedPostgres.builder()
            .setOverrideWorkingDirectory(folder.resolve("program").toFile())
            .setDataDirectory(folder.resolve("data").toFile())
            .setCleanDataDirectory(true)
            .setServerConfig("wal_level", "logical")
            .setServerConfig("max_connections", "60")
            .setServerConfig("shared_buffers", "64MB")
            .setServerConfig("password_encryption", "scram-sha-256")
            .start();
    PracticeServer server = new PracticeServer(postgres);
    try {
      server.askForPasswords(folder.resolve("data"));
      server.fill();
      server.awaitFirstCopy();
      return server;
    } catch (IOException | SQLException | RuntimeException e) {
      postgres.close();
      throw e;
    }
  }

  /** Removes what a practice server before left, unless it still runs. */
  private static void clean(Path data) throws IOException {
    Path running = data.resolve("postmaster.pid");
    if (Files.exists(running)) {
      long process = Long.parseLong(Files.readAllLines(running).get(0).strip());
      if (ProcessHandle.of(process).isPresent()) {
        throw new IOException(
            "A practice server works in %s already (process %d); stop it first, or choose another folder."
                .formatted(data, process));
      }
    }
    if (Files.exists(data)) {
      try (Stream<Path> files = Files.walk(data)) {
        for (Path file : files.sorted(Comparator.reverseOrder()).toList()) {
          Files.delete(file);
        }
      }
    }
  }

  /** It starts by letting everybody in; from here on it asks, as a server at work would. */
  private void askForPasswords(Path data) throws IOException, SQLException {
    try (Connection connection = postgres.getPostgresDatabase().getConnection();
        Statement statement = connection.createStatement()) {
      statement.execute("alter role %s password '%s'".formatted(SUPERUSER, superPassword));
      Files.writeString(data.resolve("pg_hba.conf"), "host all all 127.0.0.1/32 scram-sha-256\n");
      statement.execute("select pg_reload_conf()");
    }
  }

  private void fill() throws IOException, SQLException {
    execute(SUPERUSER, "create role %1$s login password '%1$s'".formatted(APP));
    execute(
        SUPERUSER,
        "create role %s login password '%s' in role pg_monitor".formatted(USER, PASSWORD));
    for (String database : DATABASES) {
      execute(SUPERUSER, "create database " + database);
    }
    for (String database : DATABASES) {
      if (database.equals("reports")) {
        execute("stock", "select pg_create_logical_replication_slot('reports', 'pgoutput')");
      }
      execute(
          database,
          script(database)
              .replace("{port}", Integer.toString(port()))
              .replace("{password}", superPassword));
    }
  }

  /** While a subscription copies its tables, each holds a second slot on its publisher. */
  private void awaitFirstCopy() throws IOException, SQLException {
    try (Connection connection = connect("reports", SUPERUSER, superPassword);
        Statement statement = connection.createStatement()) {
      for (int tries = 0; tries < FIRST_COPY_SECONDS * 10; tries++) {
        try (ResultSet copying =
            statement.executeQuery(
                "select count(*) from pg_subscription_rel where srsubstate <> 'r'")) {
          copying.next();
          if (copying.getInt(1) == 0) {
            return;
          }
        }
        Thread.sleep(100);
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException("Stopped while the practice databases were filled.", e);
    }
    throw new IOException(
        "reports has not copied its tables from stock within %d s; see the server's log."
            .formatted(FIRST_COPY_SECONDS));
  }

  private static String script(String database) throws IOException {
    try (InputStream in =
        PracticeServer.class.getResourceAsStream("/practice/" + database + ".sql")) {
      if (in == null) {
        throw new IOException("no script of " + database);
      }
      return new String(in.readAllBytes(), StandardCharsets.UTF_8);
    }
  }

  private void execute(String database, String sql) throws SQLException {
    try (Connection connection = connect(database, SUPERUSER, superPassword);
        Statement statement = connection.createStatement()) {
      statement.execute(sql);
    }
  }

  /** A connection as the application that works in a database. */
  Connection work(String database) throws SQLException {
    return connect(database, APP, APP);
  }

  private Connection connect(String database, String user, String password) throws SQLException {
    return DriverManager.getConnection(
        "jdbc:postgresql://127.0.0.1:%d/%s".formatted(port(), database), user, password);
  }

  public int port() {
    return postgres.getPort();
  }

  @Override
  public void close() throws IOException {
    postgres.close();
  }
}
