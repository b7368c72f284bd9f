package org.transitum.sources.inventory;

import static org.assertj.core.api.Assertions.assertThat;
import static org.transitum.sources.Files.of;
import static org.transitum.sources.Files.refused;

import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.ColumnGuess.MappedColumn;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.core.inventory.Reading;
import org.transitum.core.inventory.Reading.ReadObject;
import org.transitum.sources.files.FileTable;
import org.transitum.sources.files.TableFiles;
import org.transitum.sources.inventory.InventoryFile.Faulty;
import org.transitum.sources.inventory.InventoryFile.MappedTable;

/** Spreadsheets as people keep them. */
class MappedFileTest {
  private static final Instant AT = Instant.parse("2026-11-24T12:00:00Z");

  private static FileTable table(String... lines) {
    return TableFiles.read("list.csv", of(lines)).get(0);
  }

  private static ReadObject only(Reading reading, ObjectKind kind) {
    return reading.objects().stream().filter(o -> o.kind() == kind).findFirst().orElseThrow();
  }

  @Test
  void oneWideTableTellsOfHostsInstancesAndDatabases() {
    FileTable table =
        table(
            "Our databases, state of March;;;;;",
            "Server;Hostname;DB name;Size (GB);vCPUs;Env;Owned by",
            "HEAD-01;h1;orders;1,5;16 vCPU;PROD;Ann",
            "HEAD-01;h1;stock;2 TB;16;prod;Bo");
    MappedTable mapped = InventoryFile.guessed(table);
    assertThat(mapped.headerRow()).isEqualTo(1);
    assertThat(mapped.namesObjects()).isTrue();
    Reading reading = InventoryFile.read("list.csv", List.of(mapped), AT, Faulty.REFUSED);
    assertThat(reading.objects()).hasSize(4);
    assertThat(only(reading, ObjectKind.HOST).values()).containsEntry(Attribute.CPU_CORES, "16");
    assertThat(only(reading, ObjectKind.INSTANCE).values())
        .containsEntry(Attribute.HOST_NAME, "h1");
    assertThat(only(reading, ObjectKind.DATABASE).values())
        .containsEntry(Attribute.SIZE_BYTES, Long.toString((3L << 30) / 2))
        .containsEntry(Attribute.ENVIRONMENT, "production")
        .containsEntry(Attribute.OWNER, "Ann");
    assertThat(reading.objects().get(3).values())
        .as("a value's own unit goes before its column's")
        .containsEntry(Attribute.SIZE_BYTES, Long.toString(2L << 40));
  }

  @Test
  void whatAPersonMappedIsFollowedAndColumnsLeftOutAreLeftOut() {
    FileTable table = table("a,b,c", "X,one,99", "X,two,100");
    MappedTable mapped =
        new MappedTable(
            table,
            0,
            List.of(
                new MappedColumn("a", "instance", ""),
                new MappedColumn("b", "database", ""),
                new MappedColumn("c", "", "")));
    Reading reading = InventoryFile.read("list.csv", List.of(mapped), AT, Faulty.REFUSED);
    assertThat(reading.objects()).extracting(ReadObject::key).containsExactly("X/one", "X/two");
    assertThat(reading.objects().get(0).values()).isEmpty();
  }

  @Test
  void aMappingThatNamesNothingOrDescribesNothingIsRefused() {
    FileTable table = table("a,b", "X,12");
    MappedTable nameless =
        new MappedTable(
            table, 0, List.of(new MappedColumn("a", "owner", ""), new MappedColumn("b", "", "")));
    assertThat(refused(() -> InventoryFile.read("list.csv", List.of(nameless), AT, Faulty.REFUSED)))
        .hasMessageContaining("No column names what the rows are about");
    MappedTable misplaced =
        new MappedTable(
            table,
            0,
            List.of(new MappedColumn("a", "application", ""), new MappedColumn("b", "tables", "")));
    assertThat(
            refused(() -> InventoryFile.read("list.csv", List.of(misplaced), AT, Faulty.REFUSED)))
        .hasMessageContaining("row 2, column b")
        .hasMessageContaining("and this row names none");
  }

  @Test
  void theRestOfAFileIsReadWithoutWhatIsFaulty() {
    FileTable table =
        table(
            "instance,host,database,version,size_bytes,owner",
            "A,h1,one,12.1,12 GB,Ann",
            "A,h1,two,12.2,lots,Bo",
            "A,h1,two,12.1,5 GB,Bo",
            "/,h1,three,12.1,5 GB,Cy");
    Reading reading =
        InventoryFile.read("list.csv", List.of(InventoryFile.guessed(table)), AT, Faulty.LEFT_OUT);
    assertThat(reading.objects())
        .filteredOn(object -> object.kind() == ObjectKind.DATABASE)
        .extracting(ReadObject::key)
        .containsExactly("A/one", "A/two");
    assertThat(reading.objects())
        .filteredOn(object -> object.key().equals("A/two"))
        .singleElement()
        .satisfies(two -> assertThat(two.values()).containsOnlyKeys(Attribute.OWNER));
    assertThat(reading.unread())
        .hasSize(4)
        .allMatch(line -> line.startsWith("Left out: list.csv, row "))
        .anyMatch(line -> line.contains("row 3, column size_bytes: \"lots\""));
    FileTable hopeless = table("instance,host,database", "/,h,x");
    assertThat(
            refused(
                () ->
                    InventoryFile.read(
                        "list.csv", List.of(InventoryFile.guessed(hopeless)), AT, Faulty.LEFT_OUT)))
        .hasMessageContaining("row 2");
  }

  @Test
  void rowsThatDisagreeOnAServerAreNamed() {
    FileTable table = table("instance,host,database,version", "A,h1,one,12.1", "A,h1,two,12.2");
    assertThat(
            refused(
                () ->
                    InventoryFile.read(
                        "list.csv", List.of(InventoryFile.guessed(table)), AT, Faulty.REFUSED)))
        .hasMessageContaining("row 3")
        .hasMessageContaining("version of \"A\" is described differently in row 2");
  }

  @Test
  void ourOwnFormatNeedsNobodyAsked() {
    assertThat(InventoryFile.allKnown(InventoryFile.guessed(table("instance,database", "A,b"))))
        .isTrue();
    assertThat(InventoryFile.allKnown(InventoryFile.guessed(table("instance,db", "A,b"))))
        .isFalse();
    assertThat(InventoryFile.allKnown(InventoryFile.guessed(table("owner,note", "A,b")))).isFalse();
  }
}
