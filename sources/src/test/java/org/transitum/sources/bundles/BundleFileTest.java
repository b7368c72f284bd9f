package org.transitum.sources.bundles;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.UUID;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.transitum.sources.bundles.BundleManifest.BundledFile;
import org.transitum.sources.bundles.BundleManifest.BundledServer;
import org.transitum.sources.files.BadFile;

class BundleFileTest {
  private static final Instant AT = Instant.parse("2026-11-24T12:00:00Z");

  @TempDir private Path folder;

  private Path bundle() throws IOException {
    Path file = folder.resolve("bankside.zip");
    try (BundleWriter writer = new BundleWriter(file)) {
      String reading = writer.add("readings", "BANK-PG-01.json", out -> write(out, "{}"));
      String counters =
          writer.add(
              "counters",
              "BANK-PG-01.csv",
              out -> write(out, "object,counter,time,value\n".repeat(40)));
      writer.finish(
          UUID.randomUUID(),
          "Bankside",
          AT,
          AT.minusSeconds(3600),
          AT,
          List.of(
              new BundledServer("BANK-PG-01", "POSTGRESQL", reading, counters, 39, null),
              new BundledServer("BANK-PG-02", "POSTGRESQL", null, null, 0, "refuses")));
    }
    return file;
  }

  private static void write(OutputStream out, String text) throws IOException {
    out.write(text.getBytes(StandardCharsets.UTF_8));
  }

  /** Everything that a reader would take from a bundle. */
  private static Map<String, String> contents(Path file) throws IOException {
    Map<String, String> contents = new TreeMap<>();
    try (BundleFile bundle = BundleFile.open("b.zip", file)) {
      contents.put("manifest", bundle.manifest().toString());
      for (BundledFile each : bundle.manifest().files()) {
        try (InputStream in = bundle.content(each.path())) {
          contents.put(each.path(), new String(in.readAllBytes(), StandardCharsets.UTF_8));
        }
      }
    }
    return contents;
  }

  @Test
  void givesBackWhatWasPutIn() throws IOException {
    Map<String, String> contents = contents(bundle());
    assertThat(contents)
        .containsEntry("readings/BANK-PG-01.json", "{}")
        .containsKey("counters/BANK-PG-01.csv");
    assertThat(contents.get("manifest")).contains("Bankside", "refuses");
    assertThat(folder.resolve("bankside.zip.part")).doesNotExist();
  }

  /** Whichever byte is altered, a reader gets what was put in or a report; never anything else. */
  @Test
  void anAlteredByteIsReportedOrHarmless() throws IOException {
    Path file = bundle();
    Map<String, String> whole = contents(file);
    byte[] bytes = Files.readAllBytes(file);
    Path altered = folder.resolve("altered.zip");
    Random random = new Random(7);
    int reported = 0;
    for (int at = 0; at < bytes.length; at++) {
      byte[] other = bytes.clone();
      other[at] ^= (byte) (1 + random.nextInt(255));
      Files.write(altered, other);
      try {
        assertThat(contents(altered)).isEqualTo(whole);
      } catch (BadFile e) {
        assertThat(e.problems().get(0).sentence()).isNotBlank();
        reported++;
      }
    }
    // the rest are times and hints in the archive's own headers
    assertThat(reported).isGreaterThan(bytes.length * 2 / 3);
  }

  @Test
  void aBundleThatWasCutOffIsReported() throws IOException {
    Path file = bundle();
    byte[] bytes = Files.readAllBytes(file);
    Files.write(file, java.util.Arrays.copyOf(bytes, bytes.length / 2));
    assertThatThrownBy(() -> BundleFile.open("b.zip", file))
        .isInstanceOf(BadFile.class)
        .hasMessageContaining("cut off");
  }

  private Path zip(Map<String, String> entries) throws IOException {
    Path file = folder.resolve("made.zip");
    try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(file))) {
      for (Map.Entry<String, String> entry : entries.entrySet()) {
        zip.putNextEntry(new ZipEntry(entry.getKey()));
        write(zip, entry.getValue());
      }
    }
    return file;
  }

  @Test
  void anyOtherArchiveIsNoBundle() throws IOException {
    assertThatThrownBy(() -> BundleFile.open("b.zip", zip(Map.of("readme.txt", "hello"))))
        .hasMessageContaining("no manifest.json");
    Path text = folder.resolve("t");
    Files.writeString(text, "instance,database");
    assertThatThrownBy(() -> BundleFile.open("t", text)).hasMessageContaining("no whole zip");
  }

  @Test
  void whatTheManifestDoesNotListOrListsWronglyIsReported() throws IOException {
    try (BundleFile bundle = BundleFile.open("b.zip", bundle())) {
      Map<String, String> entries = new TreeMap<>();
      for (BundledFile file : bundle.manifest().files()) {
        entries.put(
            file.path(),
            new String(bundle.content(file.path()).readAllBytes(), StandardCharsets.UTF_8));
      }
      entries.put("manifest.json", new String(bundle.manifest().write(), StandardCharsets.UTF_8));
      entries.put("readings/BANK-PG-01.json", "{ }");
      entries.put("../../etc/passwd", "root");
      assertThatThrownBy(() -> BundleFile.open("b.zip", zip(entries)))
          .isInstanceOfSatisfying(
              BadFile.class,
              e ->
                  assertThat(e.problems())
                      .anyMatch(p -> "readings/BANK-PG-01.json".equals(p.column()))
                      .anyMatch(p -> p.sentence().contains("not in the manifest")));
      entries.remove("readings/BANK-PG-01.json");
      assertThatThrownBy(() -> BundleFile.open("b.zip", zip(entries)))
          .isInstanceOfSatisfying(
              BadFile.class,
              e ->
                  assertThat(e.problems()).anyMatch(p -> p.sentence().contains("it is not there")));
    }
  }
}
