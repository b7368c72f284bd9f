package org.transitum.sources.inventory;

import static org.assertj.core.api.Assertions.assertThat;

import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.Statement;
import java.time.Instant;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.TimeUnit;
import java.util.regex.Pattern;
import java.util.zip.GZIPInputStream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.transitum.core.inventory.Attribute;
import org.transitum.sources.inventory.ServerAddress.TlsMode;

/**
 * Schemas that applications really have, from Debian's packages of a web mail and of a monitoring
 * server: what the readers count is what the schema's own statements make.
 */
class ApplicationSchemasTest {
  private static final Path PACKAGES = Path.of("target/schemas/usr/share");
  private static final Instant AT = Instant.parse("2026-11-24T12:00:00Z");

  @TempDir private Path folder;

  @BeforeAll
  static void schemasAreThere() {
    assertThat(PACKAGES).as("unpacked by: ./transitum test").isDirectory();
  }

  /** Scripts of both applications for an engine, by the database that they make. */
  private static Map<String, String> scripts(String engine) throws IOException {
    Map<String, String> scripts = new TreeMap<>();
    scripts.put(
        "mail",
        Files.readString(PACKAGES.resolve("dbconfig-common/data/roundcube/install/" + engine)));
    Path packed = PACKAGES.resolve("zabbix-server-" + engine + "/schema.sql.gz");
    try (InputStream in = new GZIPInputStream(Files.newInputStream(packed))) {
      scripts.put("watch", new String(in.readAllBytes(), StandardCharsets.UTF_8));
    }
    return scripts;
  }

  private static int count(String script, String what) {
    return (int)
        Pattern.compile("^\\s*" + what, Pattern.MULTILINE | Pattern.CASE_INSENSITIVE)
            .matcher(script)
            .results()
            .count();
  }

  private static void holds(Map<String, String> scripts, ServerReading read) {
    scripts.forEach(
        (database, script) -> {
          Map<Attribute, String> facts =
              read.reading().objects().stream()
                  .filter(object -> object.key().equals("A-1/" + database))
                  .findFirst()
                  .orElseThrow()
                  .values();
          int tables = count(script, "create table");
          int keys =
              (int)
                  Pattern.compile("primary key", Pattern.CASE_INSENSITIVE)
                      .matcher(script)
                      .results()
                      .count();
          assertThat(tables).as(database).isGreaterThan(15);
          assertThat(facts)
              .as(database)
              .containsEntry(Attribute.TABLES, Integer.toString(tables))
              .containsEntry(Attribute.TABLES_WITHOUT_KEY, Integer.toString(tables - keys))
              .containsEntry(Attribute.TRIGGERS, Integer.toString(count(script, "create trigger")))
              .containsEntry(
                  Attribute.ROUTINES,
                  Integer.toString(count(script, "create (or replace )?function")))
              .containsEntry(Attribute.VIEWS, "0");
          assertThat(Long.parseLong(facts.get(Attribute.SIZE_BYTES))).isPositive();
        });
    assertThat(read.reading().unread()).isEmpty();
  }

  @Test
  void onPostgresql() throws Exception {
    Map<String, String> scripts = scripts("pgsql");
    try (EmbeddedPostgres postgres = PostgresBinaries.start("17")) {
      for (Map.Entry<String, String> script : scripts.entrySet()) {
        try (Connection connection = postgres.getPostgresDatabase().getConnection();
            Statement statement = connection.createStatement()) {
          statement.execute("create database " + script.getKey());
        }
        try (Connection connection =
                postgres.getDatabase("postgres", script.getKey()).getConnection();
            Statement statement = connection.createStatement()) {
          statement.execute(script.getValue());
        }
      }
      ServerReading read =
          PostgresReader.read(
              new ServerAddress(
                  "127.0.0.1", postgres.getPort(), "postgres", "postgres", "", TlsMode.PREFER),
              "A-1",
              AT);
      holds(scripts, read);
      assertThat(read.reading().objects())
          .filteredOn(object -> object.key().equals("A-1/mail"))
          .extracting(object -> object.values().get(Attribute.SEQUENCES))
          .containsExactly(Integer.toString(count(scripts.get("mail"), "create sequence")));
    }
  }

  @Test
  void onMariaDb() throws Exception {
    Map<String, String> scripts = scripts("mysql");
    try (MariaDbServer server =
        MariaDbServer.start("character-set-server=utf8mb4", "collation-server=utf8mb4_bin")) {
      for (Map.Entry<String, String> script : scripts.entrySet()) {
        server.execute("create database " + script.getKey());
        load(server, script.getKey(), script.getValue());
      }
      holds(scripts, MariaDbReader.read(server.address("root", ""), "A-1", AT));
    }
  }

  /** With the server's own client, as the scripts speak to that. */
  private void load(MariaDbServer server, String database, String script) throws Exception {
    Path file = folder.resolve(database + ".sql");
    Files.writeString(file, script);
    Process client =
        new ProcessBuilder(
                "mariadb",
                "--protocol=tcp",
                "--host=127.0.0.1",
                "--port=" + server.port(),
                "--user=root",
                database)
            .redirectInput(file.toFile())
            .redirectErrorStream(true)
            .redirectOutput(folder.resolve("log").toFile())
            .start();
    assertThat(client.waitFor(120, TimeUnit.SECONDS)).isTrue();
    assertThat(client.exitValue()).as(Files.readString(folder.resolve("log"))).isZero();
  }
}
