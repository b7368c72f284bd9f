package org.transitum.collector;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Clock;
import java.util.Arrays;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.Reading.ReadObject;
import org.transitum.sources.bundles.BundleFile;
import org.transitum.sources.inventory.ReadingJson;
import org.transitum.sources.inventory.ServerReading;
import org.transitum.sources.inventory.ServerReading.SeenTie;
import org.transitum.standins.practice.PracticeServer;
import org.transitum.standins.practice.PracticeWork;

/** A real PostgreSQL whose applications are at work while it is read and sampled. */
class BusyServerTest {
  @TempDir private Path folder;

  private Path list(int port) throws Exception {
    Path password = folder.resolve("pw");
    Files.writeString(password, PracticeServer.PASSWORD);
    Files.setPosixFilePermissions(password, PosixFilePermissions.fromString("rw-------"));
    Path list = folder.resolve("list.yaml");
    Files.writeString(
        list,
        """
        site: Practice
        folder: kept
        servers:
          - {instance: P-1, engine: PostgreSQL, host: 127.0.0.1, port: %d, user: transitum, password_file: pw}
        """
            .formatted(port));
    return list;
  }

  @Test
  void isReadAndSampledWithItsApplicationsAtWork() throws Exception {
    try (PracticeServer server = PracticeServer.start(Path.of("target/practice").toAbsolutePath());
        PracticeWork work = PracticeWork.start(server)) {
      long before = work.turns();
      Path bundle = collect(server.port());
      assertThat(work.turns()).as("applications went on meanwhile").isGreaterThan(before);
      try (BundleFile opened = BundleFile.open("bundle", bundle)) {
        facts(opened);
        counters(opened);
      }
    }
  }

  private Path collect(int port) throws Exception {
    try (Collector collector =
        Collector.open(
            CollectionList.read(list(port)),
            Clock.systemUTC(),
            new Progress(
                new PrintStream(OutputStream.nullOutputStream()), Clock.systemUTC(), false))) {
      collector.discover();
      collector.sampleOnce();
      Thread.sleep(2_500);
      collector.sampleOnce();
      return collector.bundle(folder.resolve("b.zip")).file();
    }
  }

  private static void facts(BundleFile bundle) throws Exception {
    byte[] json;
    try (InputStream in = bundle.content("readings/P-1.json")) {
      json = in.readAllBytes();
    }
    ServerReading read = ReadingJson.read("P-1", new ByteArrayInputStream(json), "P-1");
    assertThat(read.reading().unread())
        .as("what only a superuser may see")
        .containsExactly("P-1/reports: subscriptions not readable: transitum may not read them.");
    assertThat(fact(read, "P-1/customers", Attribute.TABLES)).isEqualTo("2");
    assertThat(fact(read, "P-1/customers", Attribute.TABLES_WITHOUT_KEY)).isEqualTo("1");
    assertThat(fact(read, "P-1/customers", Attribute.ROUTINE_LANGUAGES)).isEqualTo("plpgsql");
    assertThat(fact(read, "P-1/stock", Attribute.TRIGGERS)).isEqualTo("1");
    assertThat(fact(read, "P-1/orders", Attribute.EXTENSIONS)).isEqualTo("postgres_fdw");
    assertThat(fact(read, "P-1/reports", Attribute.VIEWS)).isEqualTo("1");
    assertThat(fact(read, "P-1", Attribute.REPLICATION_SLOTS)).isEqualTo("1");
    assertThat(read.ties())
        .extracting(SeenTie::from, SeenTie::database)
        .containsExactlyInAnyOrder(
            org.assertj.core.groups.Tuple.tuple("P-1/orders", "customers"),
            org.assertj.core.groups.Tuple.tuple("P-1/invoices", "orders"));
    assertThat(new String(json, StandardCharsets.UTF_8)).doesNotContain("password=");
  }

  private static String fact(ServerReading read, String key, Attribute attribute) {
    return read.reading().objects().stream()
        .filter(object -> object.key().equals(key))
        .map(ReadObject::values)
        .findFirst()
        .orElseThrow()
        .get(attribute);
  }

  /** Counters that only grow have grown, in those databases that were at work. */
  private static void counters(BundleFile bundle) throws Exception {
    String text;
    try (InputStream in = bundle.content("counters/P-1.csv")) {
      text = new String(in.readAllBytes(), StandardCharsets.UTF_8);
    }
    Map<String, double[]> firstAndLast = new TreeMap<>();
    Arrays.stream(text.split("\n"))
        .skip(1)
        .map(line -> line.split(","))
        .filter(cells -> cells[1].endsWith("_total"))
        .forEach(
            cells -> {
              double value = Double.parseDouble(cells[3]);
              firstAndLast
                      .computeIfAbsent(
                          cells[0] + " " + cells[1], key -> new double[] {value, value})[1] =
                  value;
            });
    for (String series :
        new String[] {
          "P-1/customers transactions_total", "P-1/orders transactions_total", "P-1 log_bytes_total"
        }) {
      assertThat(firstAndLast).containsKey(series);
      assertThat(firstAndLast.get(series)[1]).as(series).isGreaterThan(firstAndLast.get(series)[0]);
    }
  }
}
