package org.transitum.sources.inventory;

import static org.assertj.core.api.Assertions.assertThat;
import static org.transitum.sources.Files.bytes;
import static org.transitum.sources.Files.of;
import static org.transitum.sources.Files.refused;

import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.core.inventory.Reading;
import org.transitum.core.inventory.Reading.ReadObject;
import org.transitum.sources.files.BadFile;
import org.transitum.sources.files.FileProblem;

class InventoryFileTest {
  private static final Instant AT = Instant.parse("2026-11-24T12:00:00Z");

  private static Reading read(InputStream content) {
    return InventoryFile.read("list.csv", content, AT);
  }

  private static FileProblem only(BadFile bad) {
    assertThat(bad).isNotNull();
    assertThat(bad.total()).isEqualTo(1);
    return bad.problems().get(0);
  }

  @Test
  void databasesKeepTheirRowAndUnknownStaysAbsent() {
    Reading reading =
        read(of("instance,database,size_bytes,owner", "A,one,5,Ann", "A,two,,\"Bo, jr\""));
    assertThat(reading.objects()).extracting(ReadObject::key).containsExactly("A/one", "A/two");
    assertThat(reading.objects().get(1).place()).isEqualTo("row 3");
    assertThat(reading.objects().get(1).values())
        .containsEntry(Attribute.OWNER, "Bo, jr")
        .doesNotContainKey(Attribute.SIZE_BYTES);
  }

  @Test
  void serversGiveHostsAndInstances() {
    Reading reading =
        read(of("instance,host,engine,cpu_cores", "A,h1,postgres,8", "B,h1,mariadb,8"));
    assertThat(reading.objects())
        .extracting(ReadObject::kind)
        .containsExactly(ObjectKind.HOST, ObjectKind.INSTANCE, ObjectKind.INSTANCE);
    BadFile bad = refused(() -> read(of("instance,host,cpu_cores", "A,h1,8", "B,h1,16")));
    assertThat(only(bad).sentence())
        .contains("CPU cores of \"h1\" is described differently in row 2");
  }

  @Test
  void semicolonsByteOrderMarksAndWindowsLineEndsAreTaken() {
    String text = "\uFEFFInstance;Database;size_bytes\r\nA;one;5\r\n\r\nA;two;6\r\n";
    assertThat(read(bytes(text.getBytes(StandardCharsets.UTF_8))).objects()).hasSize(2);
    assertThat(read(bytes(text.getBytes(StandardCharsets.UTF_16LE))).objects()).hasSize(2);
  }

  @Test
  void aWrongHeaderNamesWhatIsMissingAndWhatIsThere() {
    assertThat(only(refused(() -> read(of("name,size", "a,1")))).sentence())
        .contains("no inventory", "name, size");
    FileProblem unknown = only(refused(() -> read(of("instance,database,weight", "A,one,1"))));
    assertThat(unknown.row()).isEqualTo(1);
    assertThat(unknown.column()).isEqualTo("weight");
    assertThat(unknown.sentence()).contains("size_bytes");
    assertThat(only(refused(() -> read(of("instance,database,database", "A,b,c")))).column())
        .isEqualTo("database");
  }

  @Test
  void everyProblemIsReportedAtOnceWithItsPlace() {
    StringBuilder text = new StringBuilder("instance,database,size_bytes,criticality\n");
    for (int row = 2; row <= 70_010; row++) {
      String size = row == 70_001 ? "12x" : "1";
      text.append("A,d").append(row).append(',').append(size).append(",high\n");
    }
    text.append("A,d9,1,vital\nA,d2,1,high\n");
    BadFile bad = refused(() -> read(bytes(text.toString().getBytes(StandardCharsets.UTF_8))));
    assertThat(bad.problems())
        .extracting(FileProblem::row, FileProblem::column)
        .containsExactly(
            org.assertj.core.groups.Tuple.tuple(70_001L, "size_bytes"),
            org.assertj.core.groups.Tuple.tuple(70_011L, "criticality"),
            org.assertj.core.groups.Tuple.tuple(70_011L, "database"),
            org.assertj.core.groups.Tuple.tuple(70_012L, "database"));
    assertThat(bad.problems().get(0).line()).contains("list.csv, row 70,001, column size_bytes");
    assertThat(bad.problems().get(3).sentence()).contains("row 2 already");
  }

  @Test
  void whatIsNoCsvIsSaid() {
    assertThat(only(refused(() -> read(bytes(new byte[0])))).sentence()).contains("empty");
    assertThat(only(refused(() -> read(bytes(new byte[] {'P', 'K', 3, 4, 0, 0})))).sentence())
        .contains("damaged");
    assertThat(only(refused(() -> read(bytes(new byte[] {1, 0, 2, 0})))).sentence())
        .contains("binary");
  }

  @Test
  void anotherEncodingIsDetected() {
    String text = "instance,database,owner\nA,caf\u00e9,J\u00f6rg M\u00fcller\nA,b,\u00c5sa\n";
    for (String charset : new String[] {"windows-1252", "UTF-16LE", "UTF-16BE", "UTF-8"}) {
      byte[] content = text.getBytes(java.nio.charset.Charset.forName(charset));
      assertThat(read(bytes(content)).objects().get(0).values())
          .as(charset)
          .containsEntry(Attribute.OWNER, "J\u00f6rg M\u00fcller");
    }
  }

  @Test
  void aQuoteThatNeverEndsNamesItsRow() {
    FileProblem problem =
        only(refused(() -> read(of("instance,database", "A,one", "A,\"two", "A,three"))));
    assertThat(problem.row()).isEqualTo(3);
    assertThat(problem.sentence()).contains("quote");
  }

  @Test
  void aRowThatIsTooLongIsSaid() {
    assertThat(only(refused(() -> read(of("instance,database", "A,one,two")))).sentence())
        .contains("3 values, the header 2");
  }

  @Test
  void aHugeFileIsRefusedWithoutReadingItAll() {
    InputStream endless =
        new InputStream() {
          private long at;

          @Override
          public int read() {
            String head = "instance,database\n";
            int c = at < head.length() ? head.charAt((int) at) : at % 2 == 0 ? 'x' : '\n';
            at++;
            return c;
          }

          @Override
          public int read(byte[] bytes, int from, int length) {
            for (int i = 0; i < length; i++) {
              bytes[from + i] = (byte) read();
            }
            return length;
          }
        };
    BadFile bad = refused(() -> read(endless));
    assertThat(bad).hasMessageMatching(".*(larger than 64 MiB|More than 200,000 rows).*");
  }
}
