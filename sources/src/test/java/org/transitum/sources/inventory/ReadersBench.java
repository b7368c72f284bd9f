package org.transitum.sources.inventory;

import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.util.Locale;
import org.junit.jupiter.api.Test;
import org.transitum.sources.inventory.ServerAddress.TlsMode;

/**
 * What reading a server with 300 databases takes, and what it costs the server by its own
 * statistics; run by {@code ./transitum bench readers}, never with the tests.
 */
class ReadersBench {
  private static final int DATABASES = 300;

  @Test
  void postgresWith300Databases() throws Exception {
    try (EmbeddedPostgres server = PostgresBinaries.start("18")) {
      try (Connection connection = server.getPostgresDatabase().getConnection();
          Statement statement = connection.createStatement()) {
        for (int i = 0; i < DATABASES; i++) {
          statement.execute("create database d%03d".formatted(i));
        }
      }
      ServerAddress address =
          new ServerAddress(
              "127.0.0.1", server.getPort(), "postgres", "postgres", "", TlsMode.PREFER);
      for (int round = 1; round <= 3; round++) {
        long[] before = postgres(server);
        long start = System.nanoTime();
        ServerReading read = PostgresReader.read(address, "PG-1", Instant.now());
        long took = (System.nanoTime() - start) / 1_000_000;
        Thread.sleep(1_500);
        long[] after = postgres(server);
        System.out.printf(
            Locale.ROOT,
            "PostgreSQL, %d objects: %d ms; the server counts %.1f transactions a database, %d connections, %d blocks read, %d from cache%n",
            read.reading().objects().size(),
            took,
            (after[0] - before[0]) / (double) DATABASES,
            after[1] - before[1],
            after[2] - before[2],
            after[3] - before[3]);
      }
    }
  }

  private static long[] postgres(EmbeddedPostgres server) throws SQLException {
    try (Connection connection = server.getPostgresDatabase().getConnection();
        Statement statement = connection.createStatement();
        ResultSet row =
            statement.executeQuery(
                "select sum(xact_commit + xact_rollback), sum(sessions), sum(blks_read), sum(blks_hit) from pg_stat_database")) {
      row.next();
      return new long[] {row.getLong(1), row.getLong(2), row.getLong(3), row.getLong(4)};
    }
  }

  @Test
  void mariaDbWith300Schemas() throws Exception {
    try (MariaDbServer server = MariaDbServer.start()) {
      for (int i = 0; i < DATABASES; i++) {
        String[] statements = new String[22];
        statements[0] = "create database s%03d".formatted(i);
        for (int t = 0; t < 20; t++) {
          statements[t + 1] =
              "create table s%03d.t%02d (id int primary key, note varchar(40))".formatted(i, t);
        }
        statements[21] =
            "create view s%03d.v as select a.id from s%03d.t01 a join s%03d.t02 b on a.id = b.id"
                .formatted(i, i, i);
        server.execute(statements);
      }
      for (int round = 1; round <= 3; round++) {
        long[] before = mariaDb(server);
        long start = System.nanoTime();
        ServerReading read = MariaDbReader.read(server.address("root", ""), "MY-1", Instant.now());
        long took = (System.nanoTime() - start) / 1_000_000;
        long[] after = mariaDb(server);
        System.out.printf(
            Locale.ROOT,
            "MariaDB, %d objects: %d ms; the server counts %d statements in all, %d connections, %d tables opened%n",
            read.reading().objects().size(),
            took,
            after[0] - before[0] - 1,
            after[1] - before[1] - 1,
            after[2] - before[2]);
      }
    }
  }

  private static long[] mariaDb(MariaDbServer server) throws SQLException {
    long[] values = new long[3];
    try (Connection connection = server.connect("root", "");
        Statement statement = connection.createStatement();
        ResultSet row =
            statement.executeQuery(
                "show global status where variable_name in ('Questions', 'Connections', 'Opened_tables')")) {
      while (row.next()) {
        int at =
            switch (row.getString(1)) {
              case "Questions" -> 0;
              case "Connections" -> 1;
              default -> 2;
            };
        values[at] = row.getLong(2);
      }
    }
    return values;
  }
}
