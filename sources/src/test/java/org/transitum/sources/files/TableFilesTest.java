package org.transitum.sources.files;

import static org.assertj.core.api.Assertions.assertThat;
import static org.transitum.sources.Files.bytes;
import static org.transitum.sources.Files.refused;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipFile;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.junit.jupiter.api.Test;
import org.transitum.sources.files.FileTable.Row;

class TableFilesTest {

  private interface Filling {
    void fill(Workbook workbook);
  }

  private static byte[] workbook(Filling filling) {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (Workbook workbook = new Workbook(out, "test", "1.0")) {
      filling.fill(workbook);
    } catch (IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
    return out.toByteArray();
  }

  /** The archive with some entries' content replaced. */
  private static byte[] with(byte[] archive, Map<String, String> changed) throws IOException {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (ZipFile in = ZipFile.builder().setByteArray(archive).get();
        ZipOutputStream zip = new ZipOutputStream(out)) {
      for (ZipArchiveEntry entry : Collections.list(in.getEntries())) {
        zip.putNextEntry(new ZipEntry(entry.getName()));
        String other = changed.get(entry.getName());
        zip.write(
            other == null
                ? in.getInputStream(entry).readAllBytes()
                : other.getBytes(StandardCharsets.UTF_8));
      }
    }
    return out.toByteArray();
  }

  private static List<FileTable> read(String name, byte[] content) {
    return TableFiles.read(name, bytes(content));
  }

  private static List<FileTable> read(String name, String content) {
    return read(name, content.getBytes(StandardCharsets.UTF_8));
  }

  @Test
  void aWorkbooksSheetsKeepTheirNamesRowsAndKindsOfValue() {
    byte[] content =
        workbook(
            workbook -> {
              Worksheet one = workbook.newWorksheet("Servers");
              one.value(1, 0, "instance");
              one.value(1, 1, "support_end");
              one.value(1, 2, "cpu_cores");
              one.value(1, 3, "tls");
              one.value(4, 0, "A");
              one.value(4, 1, LocalDate.of(2027, 3, 4));
              one.style(4, 1).format("yyyy-mm-dd").set();
              one.value(4, 2, 16);
              one.value(4, 3, true);
              one.value(5, 0, "B");
              one.value(5, 2, 0.5);
              Worksheet other = workbook.newWorksheet("Notes");
              other.value(0, 0, "nothing");
            });
    List<FileTable> tables = read("list.xlsx", content);
    assertThat(tables)
        .extracting(FileTable::title)
        .containsExactly("list.xlsx, Servers", "list.xlsx, Notes");
    List<Row> rows = tables.get(0).rows();
    assertThat(rows).extracting(Row::number).containsExactly(2L, 5L, 6L);
    assertThat(rows.get(1).cells()).containsExactly("A", "2027-03-04", "16", "yes");
    assertThat(rows.get(2).cell(1)).isEmpty();
    assertThat(rows.get(2).cell(2)).isEqualTo("0.5");
  }

  @Test
  void aMergedCellsValueStandsInEachOfItsRowsAndATitleInNone() {
    byte[] content =
        workbook(
            workbook -> {
              workbook.newWorksheet("First").value(0, 0, "nothing merged");
              Worksheet sheet = workbook.newWorksheet("Ours & yours");
              sheet.value(0, 0, "Databases of the depot");
              sheet.range(0, 0, 0, 2).merge();
              sheet.value(1, 0, "instance");
              sheet.value(1, 1, "host");
              sheet.value(1, 2, "database");
              sheet.value(2, 0, "A");
              sheet.range(2, 0, 4, 0).merge();
              sheet.value(2, 1, "h1");
              sheet.range(2, 1, 3, 1).merge();
              sheet.value(2, 2, "orders");
              sheet.value(3, 2, "stock");
              sheet.value(4, 2, "crew");
              sheet.value(5, 2, "of nobody");
            });
    FileTable table = read("list.xlsx", content).get(1);
    assertThat(table.rows())
        .extracting(row -> row.cell(0) + "," + row.cell(1) + "," + row.cell(2))
        .containsExactly(
            "Databases of the depot,,",
            "instance,host,database",
            "A,h1,orders",
            "A,h1,stock",
            "A,,crew",
            ",,of nobody");
    assertThat(table.notes()).singleElement().asString().startsWith("Merged cells, 2 of them");
  }

  @Test
  void aWorkbookWithoutFormatsIsRead() throws IOException {
    byte[] plain = workbook(workbook -> workbook.newWorksheet("S").value(0, 0, "instance"));
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (ZipFile in = ZipFile.builder().setByteArray(plain).get();
        ZipOutputStream zip = new ZipOutputStream(out)) {
      for (ZipArchiveEntry entry : Collections.list(in.getEntries())) {
        if (!entry.getName().equals("xl/styles.xml")) {
          zip.putNextEntry(new ZipEntry(entry.getName()));
          zip.write(in.getInputStream(entry).readAllBytes());
        }
      }
    }
    assertThat(read("list.xlsx", out.toByteArray()).get(0).rows().get(0).cell(0))
        .isEqualTo("instance");
  }

  @Test
  void aFormulasLastValueIsRead() throws IOException {
    byte[] plain = workbook(workbook -> workbook.newWorksheet("S").value(0, 0, "instance"));
    String sheet =
        """
        <worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><sheetData>
        <row r="1"><c r="A1" t="inlineStr"><is><t>instance</t></is></c><c r="B1" t="inlineStr"><is><t>size_bytes</t></is></c></row>
        <row r="2"><c r="A2" t="str"><f>CONCATENATE("PG-",1)</f><v>PG-1</v></c><c r="B2"><f>2*1024</f><v>2048</v></c></row>
        <row r="3"><c r="A3" t="e"><f>1/0</f><v>#DIV/0!</v></c><c r="B3"><v>7</v></c></row>
        </sheetData></worksheet>
        """;
    List<Row> rows =
        read("list.xlsx", with(plain, Map.of("xl/worksheets/sheet1.xml", sheet))).get(0).rows();
    assertThat(rows.get(1).cells()).containsExactly("PG-1", "2048");
    assertThat(rows.get(2).cells()).containsExactly("", "7");
  }

  @Test
  void aWorkbookThatUnpacksWithoutEndIsRefusedBeforeItIsRead() throws IOException {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (ZipOutputStream zip = new ZipOutputStream(out)) {
      zip.putNextEntry(new ZipEntry("xl/workbook.xml"));
      byte[] zeros = new byte[1 << 20];
      for (int i = 0; i < 600; i++) {
        zip.write(zeros);
      }
    }
    assertThat(out.size()).isLessThan(2 << 20);
    assertThat(refused(() -> read("bomb.xlsx", out.toByteArray())))
        .hasMessageContaining("unpacks to more than 512 MiB");
  }

  @Test
  void anExternalEntityIsNeverOpened() throws Exception {
    java.nio.file.Path secret = java.nio.file.Files.createTempFile("secret", ".txt");
    java.nio.file.Files.writeString(secret, "the-secret-words");
    byte[] plain =
        workbook(
            workbook -> {
              Worksheet sheet = workbook.newWorksheet("S");
              sheet.value(0, 0, "instance");
              sheet.value(1, 0, "A");
            });
    String hostile =
        """
        <?xml version="1.0"?><!DOCTYPE sst [<!ENTITY x SYSTEM "%s">]>
        <sst xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main" count="2" uniqueCount="2">
        <si><t>instance</t></si><si><t>&x;</t></si></sst>"""
            .formatted(secret.toUri());
    byte[] content = with(plain, Map.of("xl/sharedStrings.xml", hostile));
    String found;
    try {
      found = read("x.xlsx", content).toString();
    } catch (BadFile e) {
      found = e.getMessage();
    }
    assertThat(found).doesNotContain("the-secret-words");
  }

  @Test
  void entitiesThatMultiplyAreRefused() throws IOException {
    byte[] plain = workbook(workbook -> workbook.newWorksheet("S").value(0, 0, "instance"));
    StringBuilder laughs =
        new StringBuilder("<?xml version=\"1.0\"?><!DOCTYPE sst [<!ENTITY a0 \"ha\">");
    for (int i = 1; i < 20; i++) {
      laughs.append(
          "<!ENTITY a%d \"&a%d;&a%d;&a%d;&a%d;\">".formatted(i, i - 1, i - 1, i - 1, i - 1));
    }
    laughs.append(
        "]><sst xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\"><si><t>&a19;</t></si></sst>");
    byte[] content = with(plain, Map.of("xl/sharedStrings.xml", laughs.toString()));
    try {
      List<FileTable> tables = read("x.xlsx", content);
      assertThat(tables.toString().length()).isLessThan(1_000_000);
    } catch (BadFile e) {
      assertThat(e).hasMessageContaining("x.xlsx");
    }
  }

  @Test
  void aMillionEmptyRowsAreNoRows() throws IOException {
    byte[] plain =
        workbook(
            workbook -> {
              Worksheet sheet = workbook.newWorksheet("S");
              sheet.value(0, 0, "instance");
              sheet.value(1, 0, "A");
            });
    StringBuilder rows =
        new StringBuilder(
            "<?xml version=\"1.0\"?><worksheet xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\"><sheetData>");
    rows.append("<row r=\"1\"><c r=\"A1\" t=\"inlineStr\"><is><t>instance</t></is></c></row>");
    for (int i = 2; i <= 1_000_000; i++) {
      rows.append("<row r=\"").append(i).append("\"/>");
    }
    rows.append(
        "<row r=\"1000001\"><c r=\"A1000001\" t=\"inlineStr\"><is><t>A</t></is></c></row></sheetData></worksheet>");
    List<Row> read =
        read("x.xlsx", with(plain, Map.of("xl/worksheets/sheet1.xml", rows.toString())))
            .get(0)
            .rows();
    assertThat(read).extracting(Row::number).containsExactly(1L, 1_000_001L);
  }

  @Test
  void anyOtherArchiveAndABrokenWorkbookAreNamed() throws IOException {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (ZipOutputStream zip = new ZipOutputStream(out)) {
      zip.putNextEntry(new ZipEntry("list.csv"));
      zip.write("instance,database\n".getBytes(StandardCharsets.UTF_8));
    }
    assertThat(refused(() -> read("list.csv", out.toByteArray())))
        .hasMessageContaining("zip archive and no workbook");
    byte[] whole = workbook(workbook -> workbook.newWorksheet("S").value(0, 0, "x"));
    byte[] half = java.util.Arrays.copyOf(whole, whole.length / 2);
    assertThat(refused(() -> read("half.xlsx", half))).hasMessageContaining("half.xlsx");
    byte[] noSheet = whole.clone();
    assertThat(
            refused(
                () -> read("x.xlsx", with(noSheet, Map.of("xl/workbook.xml", "<html>no</html>")))))
        .hasMessageMatching(".*(damaged|no row).*");
  }

  @Test
  void jsonHoldsItsThreeArraysAndNothingElse() {
    List<FileTable> tables =
        read(
            "estate.json",
            """
            {"databases": [{"instance": "A", "database": "one", "size_bytes": 5, "extensions": ["b", "a"]},
                           {"instance": "A", "database": "two", "tls": true, "owner": null}],
             "applications": []}
            """);
    assertThat(tables).hasSize(2);
    assertThat(tables.get(0).rows().get(0).cells())
        .containsExactly("instance", "database", "size_bytes", "extensions", "tls", "owner");
    assertThat(tables.get(0).rows().get(1).cells()).containsExactly("A", "one", "5", "b;a", "", "");
    assertThat(tables.get(0).rows().get(2).cell(4)).isEqualTo("yes");
    assertThat(refused(() -> read("x.json", "{\"hosts\": []}"))).hasMessageContaining("hosts");
    assertThat(refused(() -> read("x.json", "[{\"a\": {\"b\": 1}}]")))
        .hasMessageContaining("flat object");
    assertThat(refused(() -> read("x.json", "{\"databases\": [\n{\"a\": ]}")))
        .hasMessageContaining("x.json, row 2")
        .hasMessageContaining("Not JSON");
    assertThat(refused(() -> read("x.json", "[".repeat(5_000)))).hasMessageContaining("Not JSON");
  }

  @Test
  void theDelimiterIsTheOneTheHeaderHoldsMost() {
    assertThat(CsvRows.delimiterOf("a;b;c\n1,5;2;3\n")).isEqualTo(';');
    assertThat(CsvRows.delimiterOf("a|b\nx,y|z")).isEqualTo('|');
    assertThat(CsvRows.delimiterOf("Our list\na\tb\tc\n1\t2\t3")).isEqualTo('\t');
    assertThat(CsvRows.delimiterOf("alone")).isEqualTo(',');
  }

  /** Whatever bytes come, the answer is a table or a sentence, and cells come back as written. */
  @Test
  void randomBytesNeverBreakTheReader() {
    Random random = new Random(21);
    for (int round = 0; round < 3_000; round++) {
      byte[] content = new byte[random.nextInt(200)];
      String alphabet = "ab,;\t|\"\n\r \u0000é=+{}[]PK\u0003\u0004";
      for (int i = 0; i < content.length; i++) {
        content[i] =
            random.nextInt(4) == 0
                ? (byte) random.nextInt(256)
                : (byte) alphabet.charAt(random.nextInt(alphabet.length()));
      }
      try {
        assertThat(TableFiles.read("f", bytes(content))).isNotEmpty();
      } catch (BadFile e) {
        assertThat(e.problems()).isNotEmpty();
      }
    }
  }

  @Test
  void whatIsWrittenWithQuotesComesBackWhateverItHolds() {
    Random random = new Random(22);
    for (int round = 0; round < 500; round++) {
      List<String> cells = new ArrayList<>();
      for (int i = 0; i < 4; i++) {
        StringBuilder cell = new StringBuilder("x");
        for (int c = random.nextInt(12); c > 0; c--) {
          cell.append(",;\"\n=é'".charAt(random.nextInt(7)));
        }
        cells.add(cell.append('y').toString());
      }
      String line =
          String.join(",", cells.stream().map(c -> '"' + c.replace("\"", "\"\"") + '"').toList());
      assertThat(read("f.csv", "a,b,c,d\n" + line + "\n").get(0).rows().get(1).cells())
          .isEqualTo(cells);
    }
  }
}
