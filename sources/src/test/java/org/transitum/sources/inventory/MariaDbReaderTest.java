package org.transitum.sources.inventory;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.Reading.ReadObject;
import org.transitum.sources.OwnCertificate;
import org.transitum.sources.counters.Sample;
import org.transitum.sources.counters.ServerSampler;
import org.transitum.sources.inventory.ServerAddress.TlsMode;
import org.transitum.sources.inventory.ServerReading.SeenTie;

/**
 * Against a real MariaDB, with linked tables, broken views and accounts that may see more or less.
 */
class MariaDbReaderTest {
  private static final Instant AT = Instant.parse("2026-11-24T12:00:00Z");
  private static MariaDbServer server;

  @BeforeAll
  static void start() throws Exception {
    server = MariaDbServer.start("log_bin=bin", "server_id=7", "binlog_format=ROW");
    server.execute(
        "create database orders character set utf8mb3 collate utf8mb3_general_ci",
        "create database stock",
        "create database quiet",
        "create table orders.item (id int primary key, name varchar(40)) engine=InnoDB",
        "create table orders.history (at datetime, note longtext) engine=MyISAM",
        "insert into orders.history values (now(), repeat('x', 3000000))",
        "create table stock.place (id int primary key) engine=Aria",
        "create view orders.placed as select i.id, p.id as place from orders.item i join stock.place p on p.id = i.id",
        "create table orders.lost (a int primary key)",
        "create view orders.broken as select a from orders.lost",
        "drop table orders.lost",
        "create procedure orders.tidy() delete from orders.history where at < now()",
        "create function stock.fill() returns int deterministic return (select count(*) from orders.item)",
        "create trigger orders.t before insert on orders.item for each row set new.name = upper(new.name)",
        "create event orders.nightly on schedule every 1 day do delete from stock.place where id < 0",
        "create server far foreign data wrapper mysql options (host 'far.example', port 3307, database 'ledger', user 'u', password 'hidden-one')",
        "create user reader identified by 'secret'",
        "grant select, show databases, show view, trigger, event, process, replica monitor on *.* to reader",
        "create user lean identified by 'secret'",
        "grant show databases, show view, trigger, event, process, replica monitor on *.* to lean",
        "grant select on mysql.user to lean",
        "grant select on mysql.proc to lean",
        "grant select on mysql.servers to lean",
        "create user narrow identified by 'secret'",
        "grant select on stock.* to narrow");
    server.execute(
        "install soname 'ha_spider'",
        "create table orders.spread (id int primary key) engine=Spider comment='wrapper \"mysql\", srv \"far\", table \"book\"'",
        "create table stock.near (id int primary key) engine=Spider comment='wrapper \"mysql\", host \"old.example\", port \"3310\", database \"archive\", user \"u\", password \"hidden-two\", table \"t\"'");
  }

  @AfterAll
  static void stop() throws Exception {
    server.close();
  }

  private static ServerReading read(String user) {
    return MariaDbReader.read(server.address(user, "secret"), "MY-1", AT);
  }

  private static String value(ServerReading read, String key, Attribute attribute) {
    return read.reading().objects().stream()
        .filter(object -> object.key().equals(key))
        .findFirst()
        .orElseThrow()
        .values()
        .get(attribute);
  }

  @Test
  void readsServerAndSchemas() {
    ServerReading read = read("reader");
    assertThat(read.reading().unread()).isEmpty();
    assertThat(read.reading().objects())
        .extracting(ReadObject::key)
        .containsExactly("127.0.0.1", "MY-1", "MY-1/orders", "MY-1/quiet", "MY-1/stock");
    assertThat(value(read, "MY-1", Attribute.ENGINE)).isEqualTo("MariaDB");
    assertThat(value(read, "MY-1", Attribute.VERSION)).matches("\\d+\\.\\d+\\.\\d+");
    assertThat(value(read, "MY-1", Attribute.LOG_MODE)).isEqualTo("binary log, ROW");
    assertThat(value(read, "MY-1", Attribute.LOG_RETENTION)).isEqualTo("kept for ever");
    assertThat(value(read, "MY-1", Attribute.CACHE_BYTES)).isEqualTo(Long.toString(64L << 20));
    assertThat(value(read, "127.0.0.1", Attribute.BYTE_ORDER)).isEqualTo("little-endian");
    assertThat(value(read, "MY-1", Attribute.REPLICATION)).isEqualTo("none");
    assertThat(value(read, "MY-1", Attribute.SQL_MODE)).contains("STRICT_TRANS_TABLES");
    assertThat(Integer.parseInt(value(read, "MY-1", Attribute.ROLES))).isGreaterThan(2);
  }

  @Test
  void countsObjectsPerSchema() {
    ServerReading read = read("reader");
    assertThat(value(read, "MY-1/orders", Attribute.TABLES)).isEqualTo("3");
    assertThat(value(read, "MY-1/orders", Attribute.TABLES_WITHOUT_KEY)).isEqualTo("1");
    assertThat(value(read, "MY-1/orders", Attribute.VIEWS)).isEqualTo("2");
    assertThat(value(read, "MY-1/orders", Attribute.BROKEN_VIEWS)).isEqualTo("1");
    assertThat(value(read, "MY-1/orders", Attribute.ROUTINES)).isEqualTo("1");
    assertThat(value(read, "MY-1/orders", Attribute.ROUTINE_LANGUAGES)).isEqualTo("SQL");
    assertThat(value(read, "MY-1/orders", Attribute.TRIGGERS)).isEqualTo("1");
    assertThat(value(read, "MY-1/orders", Attribute.EVENTS)).isEqualTo("1");
    assertThat(value(read, "MY-1/orders", Attribute.ENCODING)).isEqualTo("utf8mb3");
    assertThat(value(read, "MY-1/orders", Attribute.STORAGE_ENGINES))
        .isEqualTo("InnoDB, MyISAM, SPIDER");
    assertThat(value(read, "MY-1/orders", Attribute.BIGGEST_TABLES)).contains("history 2 MiB");
    assertThat(value(read, "MY-1/quiet", Attribute.TABLES)).isEqualTo("0");
    assertThat(value(read, "MY-1/quiet", Attribute.TRIGGERS)).isEqualTo("0");
  }

  @Test
  void seesTiesInDefinitionsAndLinkedTablesWithoutTheirPasswords() {
    List<SeenTie> ties = read("reader").ties();
    assertThat(ties)
        .extracting(SeenTie::from, SeenTie::host, SeenTie::port, SeenTie::database)
        .containsExactlyInAnyOrder(
            tuple("MY-1/orders", "127.0.0.1", server.port(), "stock"),
            tuple("MY-1/stock", "127.0.0.1", server.port(), "orders"),
            tuple("MY-1/orders", "far.example", 3307, "ledger"),
            tuple("MY-1/stock", "old.example", 3310, "archive"));
    assertThat(ties)
        .filteredOn(tie -> tie.from().equals("MY-1/orders") && tie.database().equals("stock"))
        .extracting(SeenTie::how)
        .containsExactly("named in view orders.placed, event orders.nightly");
    assertThat(ties.toString()).doesNotContain("hidden");
  }

  @Test
  void withoutTheRightToDataOnlyWhatViewsNameIsMissing() {
    ServerReading read = read("lean");
    assertThat(read.reading().unread())
        .containsExactly(
            "MY-1: broken views and what views name not readable; grant SELECT ON *.* to lean.");
    assertThat(value(read, "MY-1/orders", Attribute.BROKEN_VIEWS)).isNull();
    assertThat(value(read, "MY-1/orders", Attribute.TABLES)).isEqualTo("3");
    assertThat(value(read, "MY-1/orders", Attribute.ROUTINES)).isEqualTo("1");
  }

  @Test
  void whatAnAccountMayNotSeeIsSaidAndNotCountedAsNone() {
    ServerReading read = read("narrow");
    assertThat(read.reading().objects()).extracting(ReadObject::key).contains("MY-1/stock");
    assertThat(read.reading().unread())
        .anyMatch(line -> line.contains("grant SHOW DATABASES"))
        .anyMatch(
            line -> line.equals("MY-1: triggers not readable; grant TRIGGER ON *.* to narrow."))
        .anyMatch(line -> line.contains("MY-1: events not readable; grant EVENT"))
        .anyMatch(line -> line.contains("users not readable; grant SELECT ON mysql.user"));
    assertThat(value(read, "MY-1/stock", Attribute.TRIGGERS)).isNull();
    assertThat(value(read, "MY-1/stock", Attribute.TABLES)).isEqualTo("2");
    assertThat(value(read, "MY-1", Attribute.ROLES)).isNull();
  }

  @Test
  void aRefusalIsSaidInWords() {
    assertThatThrownBy(() -> MariaDbReader.read(server.address("reader", "wrong"), "MY-1", AT))
        .isInstanceOf(Unreachable.class)
        .hasMessageContaining("refused the password of reader");
    assertThatThrownBy(
            () ->
                MariaDbReader.read(
                    new ServerAddress("127.0.0.1", 1, "", "u", "p", TlsMode.DISABLE), "MY-1", AT))
        .isInstanceOf(Unreachable.class)
        .hasMessageContaining("127.0.0.1:1 was not reached within 10 s");
    ServerAddress verified =
        new ServerAddress("127.0.0.1", server.port(), "", "reader", "secret", TlsMode.VERIFY);
    assertThatThrownBy(() -> MariaDbReader.read(verified, "MY-1", AT))
        .isInstanceOf(Unreachable.class)
        .hasMessageContaining("ssl not enabled");
  }

  @Test
  void aServerWhoseCertificateNobodyVouchesForIsReadOnlyWhereThatWasChosen(@TempDir Path folder)
      throws Exception {
    OwnCertificate certificate = OwnCertificate.in(folder);
    List<Path> files = List.of(certificate.certificateFile(), certificate.keyFile());
    Files.setPosixFilePermissions(folder, PosixFilePermissions.fromString("rwxr-xr-x"));
    for (Path file : files) {
      Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("r--r--r--"));
    }
    try (MariaDbServer own =
        MariaDbServer.start("ssl-cert=" + files.get(0), "ssl-key=" + files.get(1))) {
      own.execute("create user reader identified by 'secret'");
      assertThatThrownBy(() -> MariaDbReader.read(address(own, TlsMode.VERIFY), "MY-2", AT))
          .isInstanceOf(Unreachable.class)
          .hasMessageContaining("shows a certificate that is not trusted here");
      ServerReading read = MariaDbReader.read(address(own, TlsMode.REQUIRE), "MY-2", AT);
      assertThat(value(read, "MY-2", Attribute.TLS)).isEqualTo("yes");
    }
  }

  private static ServerAddress address(MariaDbServer at, TlsMode tls) {
    return new ServerAddress("127.0.0.1", at.port(), "", "reader", "secret", tls);
  }

  @Test
  void grantsHoldPerServerSchemaAndTable() {
    MariaDbGrants grants =
        new MariaDbGrants(
            List.of(
                "GRANT SHOW DATABASES, TRIGGER ON *.* TO `r`@`%` IDENTIFIED BY PASSWORD '*1'",
                "GRANT ALL PRIVILEGES ON `ord\\_ers`.* TO `r`@`%`",
                "GRANT SELECT, INSERT (a, b) ON `mysql`.`user` TO `r`@`%`"));
    assertThat(grants.has("x", "TRIGGER")).isTrue();
    assertThat(grants.has("x", "EVENT")).isFalse();
    assertThat(grants.has("ord_ers", "EVENT")).isTrue();
    assertThat(grants.reads("mysql", "user")).isTrue();
    assertThat(grants.reads("mysql", "proc")).isFalse();
  }

  @Test
  void samplesWhatTheServerCounts() throws Exception {
    server.execute("create database grows", "create table grows.log (note longtext) engine=MyISAM");
    Map<String, Double> before = samples();
    for (int i = 0; i < 50; i++) {
      server.execute("insert into grows.log values (repeat('y', 20000))");
    }
    Map<String, Double> after = samples();
    server.execute("drop database grows");
    assertThat(after.get("MY-1 TRANSACTIONS_TOTAL"))
        .isGreaterThan(before.get("MY-1 TRANSACTIONS_TOTAL"));
    assertThat(after.get("MY-1/grows SIZE_BYTES"))
        .isGreaterThanOrEqualTo(before.get("MY-1/grows SIZE_BYTES") + 50 * 20_000);
    assertThat(after)
        .containsKeys(
            "MY-1 READS_TOTAL",
            "MY-1 IO_BYTES_TOTAL",
            "MY-1 LOG_BYTES_TOTAL",
            "MY-1/quiet CONNECTIONS")
        .doesNotContainKey("MY-1/mysql SIZE_BYTES");
  }

  private static Map<String, Double> samples() {
    return ServerSampler.of(ReadableEngine.MARIADB)
        .sample(server.address("reader", "secret"), "MY-1")
        .stream()
        .collect(Collectors.toMap(s -> s.object() + " " + s.counter(), Sample::value));
  }

  /** Rows and tables come and go while the catalogue is read; what stands still is told right. */
  @Test
  void isReadWhileItsApplicationsAreAtWork() throws Exception {
    server.execute(
        "create database busy",
        "create table busy.log (id int auto_increment primary key, note text)");
    AtomicBoolean stop = new AtomicBoolean();
    AtomicInteger turns = new AtomicInteger();
    ExecutorService workers = Executors.newFixedThreadPool(3);
    for (int worker = 0; worker < 3; worker++) {
      String table = "busy.t" + worker;
      var unused =
          workers.submit(
              () -> {
                while (!stop.get()) {
                  server.execute(
                      "insert into busy.log (note) values (repeat('n', 100))",
                      "create table " + table + " (id int)",
                      "create or replace view " + table + "_v as select id from " + table,
                      "drop view " + table + "_v",
                      "drop table " + table);
                  turns.incrementAndGet();
                }
                return true;
              });
    }
    try {
      for (int round = 0; round < 5; round++) {
        ServerReading read = read("reader");
        assertThat(value(read, "MY-1/quiet", Attribute.TABLES)).isEqualTo("0");
        assertThat(value(read, "MY-1/orders", Attribute.BROKEN_VIEWS)).isEqualTo("1");
        assertThat(Integer.parseInt(value(read, "MY-1/busy", Attribute.TABLES))).isBetween(1, 4);
      }
    } finally {
      stop.set(true);
      workers.shutdown();
      workers.awaitTermination(20, TimeUnit.SECONDS);
      server.execute("drop database busy");
    }
    assertThat(turns.get()).isPositive();
  }
}
