package org.transitum.sources.inventory;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.IOException;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.transitum.core.counters.Counter;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.Difference;
import org.transitum.core.inventory.EstateObject;
import org.transitum.core.inventory.Fact;
import org.transitum.core.inventory.Origin;
import org.transitum.core.inventory.Reading.ReadObject;
import org.transitum.core.inventory.ToldFacts;
import org.transitum.sources.OwnCertificate;
import org.transitum.sources.counters.Sample;
import org.transitum.sources.counters.ServerSampler;
import org.transitum.sources.inventory.ServerAddress.TlsMode;
import org.transitum.sources.inventory.ServerReading.SeenTie;

/** Against real servers of every major, with ties, and a role that may not see all. */
class PostgresReaderTest {
  private static final Instant AT = Instant.parse("2026-11-24T12:00:00Z");

  private static Stream<TestServer> servers() {
    return Stream.of("12", "13", "14", "15", "16", "17", "18").map(TestServer::of);
  }

  @AfterAll
  static void stop() {
    TestServer.stopAll();
  }

  @ParameterizedTest
  @MethodSource("servers")
  void readsInstanceDatabasesAndTies(TestServer server) throws SQLException {
    server.prepare();
    ServerReading read = PostgresReader.read(server.address("reader", "secret"), "PG-1", AT);
    assertThat(read.reading().unread()).isEmpty();
    assertThat(value(read, "PG-1", Attribute.VERSION)).startsWith(server.major());
    assertThat(value(read, "PG-1", Attribute.LOG_MODE)).isEqualTo("logical");
    assertThat(value(read, "127.0.0.1", Attribute.BYTE_ORDER)).isEqualTo("little-endian");
    assertThat(value(read, "PG-1/orders", Attribute.TABLES)).isEqualTo("2");
    assertThat(value(read, "PG-1/orders", Attribute.TABLES_WITHOUT_KEY)).isEqualTo("1");
    assertThat(value(read, "PG-1/orders", Attribute.VIEWS)).isEqualTo("1");
    assertThat(value(read, "PG-1/orders", Attribute.ROUTINES)).isEqualTo("1");
    assertThat(value(read, "PG-1/orders", Attribute.EXTENSIONS)).isEqualTo("dblink, postgres_fdw");
    assertThat(Long.parseLong(value(read, "PG-1/orders", Attribute.SIZE_BYTES))).isPositive();
    assertThat(value(read, "PG-1/orders", Attribute.ROUTINE_LANGUAGES)).isEqualTo("sql");
    assertThat(value(read, "PG-1/orders", Attribute.BIGGEST_TABLES)).contains(" MiB");
    assertThat(value(read, "PG-1/orders", Attribute.EVENTS)).isEqualTo("0");
    assertThat(value(read, "PG-1", Attribute.REPLICATION)).isEqualTo("none");
    assertThat(value(read, "PG-1", Attribute.PLUGINS)).isEqualTo("none");
    assertThat(value(read, "PG-1", Attribute.ROLES_WITH_ALL_RIGHTS)).isEqualTo("1");
    assertThat(value(read, "PG-1", Attribute.LOG_RETENTION))
        .matches("archive_mode off, .*wal_keep_(size|segments) 0.*");
    assertThat(read.ties())
        .extracting(SeenTie::from, SeenTie::host, SeenTie::port, SeenTie::database)
        .containsExactlyInAnyOrder(
            org.assertj.core.groups.Tuple.tuple("PG-1/orders", "far.example", 5433, "stock"),
            org.assertj.core.groups.Tuple.tuple("PG-1/orders", "old.example", 5432, "ledger"));
    assertThat(read.ties().toString()).doesNotContain("hidden");
  }

  @ParameterizedTest
  @MethodSource("servers")
  void readingAgainAfterAcceptingChangesNothing(TestServer server) throws SQLException {
    server.prepare();
    ServerReading first = PostgresReader.read(server.address("reader", "secret"), "PG-1", AT);
    ServerReading second = PostgresReader.read(server.address("reader", "secret"), "PG-1", AT);
    List<EstateObject> estate =
        first.reading().objects().stream().map(PostgresReaderTest::accepted).toList();
    assertThat(Difference.between(estate, second.reading()).changes()).isEmpty();
  }

  private static EstateObject accepted(ReadObject read) {
    Map<Attribute, ToldFacts> told = new EnumMap<>(Attribute.class);
    read.values()
        .forEach(
            (attribute, value) ->
                told.put(
                    attribute,
                    new ToldFacts(
                        attribute,
                        List.of(
                            new Fact(
                                1, value, Origin.OBSERVED, "server PG-1", "", AT, AT, false)))));
    return EstateObject.of(read.kind(), read.key(), told, Set.of("server PG-1"), false);
  }

  @ParameterizedTest
  @MethodSource("servers")
  void whatARoleMayNotSeeIsSaidAndTheRestKept(TestServer server) throws SQLException {
    server.prepare();
    ServerReading read = PostgresReader.read(server.address("stranger", "secret"), "PG-1", AT);
    assertThat(read.reading().objects())
        .extracting(ReadObject::key)
        .contains("PG-1/orders", "PG-1/closed");
    assertThat(read.reading().unread())
        .anySatisfy(line -> assertThat(line).contains("PG-1/closed", "grant CONNECT"))
        .anySatisfy(line -> assertThat(line).contains("PG-1/closed", "size", "pg_monitor"));
  }

  @ParameterizedTest
  @MethodSource("servers")
  void samplesWhatTheServerCanTell(TestServer server) throws SQLException {
    server.prepare();
    List<Sample> samples =
        ServerSampler.of(ReadableEngine.POSTGRESQL)
            .sample(server.address("reader", "secret"), "PG-1");
    assertThat(samples)
        .filteredOn(sample -> sample.object().equals("PG-1/orders"))
        .extracting(Sample::counter)
        .contains(
            Counter.TRANSACTIONS_TOTAL,
            Counter.READS_TOTAL,
            Counter.BLOCKS_HIT_TOTAL,
            Counter.TEMP_BYTES_TOTAL,
            Counter.CONNECTIONS,
            Counter.SIZE_BYTES);
    assertThat(samples)
        .filteredOn(sample -> sample.counter() == Counter.LOG_BYTES_TOTAL)
        .singleElement()
        .satisfies(sample -> assertThat(sample.value()).isPositive());
    assertThat(samples).extracting(Sample::counter).doesNotContain(Counter.CPU_CORES);
  }

  @Test
  void aWrongPasswordAMissingDatabaseAndAClosedPortAreSaid() throws Exception {
    TestServer server = TestServer.of("18");
    server.prepare();
    assertThatThrownBy(() -> PostgresReader.read(server.address("reader", "wrong"), "X", AT))
        .isInstanceOf(Unreachable.class)
        .hasMessageContaining("refused the password of reader");
    assertThatThrownBy(
            () ->
                PostgresReader.read(
                    server.address("reader", "secret").withDatabase("nowhere"), "X", AT))
        .hasMessageContaining("no database \"nowhere\"");
    int closed;
    try (ServerSocket socket = new ServerSocket(0)) {
      closed = socket.getLocalPort();
    }
    ServerAddress gone =
        new ServerAddress("127.0.0.1", closed, "postgres", "u", "p", TlsMode.DISABLE);
    assertThatThrownBy(() -> PostgresReader.read(gone, "X", AT))
        .hasMessageContaining("was not reached");
  }

  @Test
  void aServerWhoseCertificateNobodyVouchesForIsReadOnlyWhereThatWasChosen(@TempDir Path folder)
      throws Exception {
    TestServer server = TestServer.of("18");
    server.prepare();
    OwnCertificate certificate = OwnCertificate.in(folder);
    server.offerTls(certificate.certificateFile(), certificate.keyFile());
    ServerAddress address = server.address("reader", "secret");
    assertThatThrownBy(() -> PostgresReader.read(with(address, TlsMode.VERIFY), "X", AT))
        .isInstanceOf(Unreachable.class)
        .hasMessageContaining("shows a certificate that is not trusted here")
        .hasMessageContaining("javax.net.ssl.trustStore");
    assertThat(
            value(PostgresReader.read(with(address, TlsMode.REQUIRE), "X", AT), "X", Attribute.TLS))
        .isEqualTo("yes");
  }

  private static ServerAddress with(ServerAddress address, TlsMode tls) {
    return new ServerAddress(
        address.host(),
        address.port(),
        address.database(),
        address.user(),
        address.password(),
        tls);
  }

  private static String value(ServerReading read, String key, Attribute attribute) {
    return read.reading().objects().stream()
        .filter(o -> o.key().equals(key))
        .findFirst()
        .orElseThrow()
        .values()
        .get(attribute);
  }

  /** One real server per major, started when first asked for. */
  static final class TestServer {
    private static final java.util.Map<String, TestServer> STARTED = new java.util.HashMap<>();

    private final String major;
    private final EmbeddedPostgres postgres;
    private boolean prepared;

    private TestServer(String major) {
      this.major = major;
      try {
        postgres = PostgresBinaries.start(major);
      } catch (IOException e) {
        throw new java.io.UncheckedIOException(e);
      }
    }

    static TestServer of(String major) {
      return STARTED.computeIfAbsent(major, TestServer::new);
    }

    static void stopAll() {
      STARTED
          .values()
          .forEach(
              server -> {
                try {
                  server.postgres.close();
                } catch (IOException e) {
                  throw new java.io.UncheckedIOException(e);
                }
              });
      STARTED.clear();
    }

    String major() {
      return major;
    }

    ServerAddress address(String user, String password) {
      return new ServerAddress(
          "127.0.0.1", postgres.getPort(), "postgres", user, password, TlsMode.PREFER);
    }

    void prepare() throws SQLException {
      if (prepared) {
        return;
      }
      prepared = true;
      run(
          "postgres",
          "create role reader login password 'secret' in role pg_monitor",
          "create role stranger login password 'secret'",
          "create database orders",
          "create database closed",
          "revoke connect on database closed from public");
      run("closed", "create table t (id int)");
      run("postgres", "grant connect on database closed to reader");
      run(
          "orders",
          "create table item (id int primary key)",
          "create table note (words text)",
          "create view open_item as select * from item",
          "create extension postgres_fdw",
          "create extension dblink",
          "create server far foreign data wrapper postgres_fdw options (host 'far.example', port '5433', dbname 'stock')",
          "create foreign table far_item (id int) server far",
          """
          create function old_total() returns int language sql as
          $$ select t from dblink('host=old.example dbname=ledger password=hidden', 'select 1') as d(t int) $$
          """);
      requirePasswords();
    }

    void offerTls(Path certificate, Path key) throws Exception {
      Path data = dataFolder();
      for (Path file : List.of(certificate, key)) {
        Path own = data.resolve(file.getFileName());
        Files.copy(file, own);
        Files.setPosixFilePermissions(own, PosixFilePermissions.fromString("rw-------"));
        Files.setOwner(own, Files.getOwner(data));
      }
      run(
          "postgres",
          "alter system set ssl_cert_file = '%s'".formatted(certificate.getFileName()),
          "alter system set ssl_key_file = '%s'".formatted(key.getFileName()),
          "alter system set ssl = on",
          "select pg_reload_conf()");
      for (int tries = 0; tries < 50 && !"on".equals(setting("ssl")); tries++) {
        Thread.sleep(100);
      }
    }

    private Path dataFolder() throws SQLException {
      return Path.of(setting("data_directory"));
    }

    private String setting(String name) throws SQLException {
      try (Connection connection = connect("postgres");
          Statement statement = connection.createStatement();
          var row = statement.executeQuery("show " + name)) {
        row.next();
        return row.getString(1);
      }
    }

    /** The embedded server trusts everybody; passwords are to be checked here. */
    private void requirePasswords() throws SQLException {
      try (Connection connection = connect("postgres");
          Statement statement = connection.createStatement()) {
        String file;
        try (var row = statement.executeQuery("show hba_file")) {
          row.next();
          file = row.getString(1);
        }
        Files.writeString(
            Path.of(file),
            """
            host all postgres 127.0.0.1/32 trust
            host all all 127.0.0.1/32 scram-sha-256
            """);
        statement.execute("select pg_reload_conf()");
        Thread.sleep(300);
      } catch (IOException | InterruptedException e) {
        throw new IllegalStateException(e);
      }
    }

    private void run(String database, String... statements) throws SQLException {
      try (Connection connection = connect(database);
          Statement statement = connection.createStatement()) {
        for (String sql : statements) {
          statement.execute(sql);
        }
      }
    }

    private Connection connect(String database) throws SQLException {
      return DriverManager.getConnection(
          "jdbc:postgresql://127.0.0.1:" + postgres.getPort() + "/" + database, "postgres", "");
    }

    @Override
    public String toString() {
      return "PostgreSQL " + major;
    }
  }
}
