package org.transitum.core.inventory;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.transitum.core.inventory.ColumnGuess.Certainty;
import org.transitum.core.inventory.ColumnGuess.Guess;

class ColumnGuessTest {

  private static Guess one(String header, String... cells) {
    return ColumnGuess.of(
            List.of(header), List.of(cells).stream().map(cell -> List.of(cell)).toList())
        .get(0);
  }

  @ParameterizedTest
  @CsvSource({
    "size_bytes, size_bytes, '', KNOWN",
    "Size Bytes, size_bytes, '', KNOWN",
    "Size (GB), size_bytes, GB, LIKELY",
    "db_size_mb, size_bytes, mb, LIKELY",
    "Total memory [GiB], memory_bytes, GiB, LIKELY",
    "Allowed downtime (hours), permitted_outage_minutes, hours, LIKELY",
    "Server-Name, instance, '', LIKELY",
    "Recovery model, log_mode, '', LIKELY",
    "Wombat, '', '', NONE"
  })
  void namesArePeoplesNames(String header, String target, String unit, Certainty certainty) {
    Guess guess = one(header, "1");
    assertThat(guess.column().target()).isEqualTo(target);
    assertThat(guess.column().unit()).isEqualTo(unit);
    assertThat(guess.certainty()).isEqualTo(certainty);
    assertThat(guess.why()).isNotEmpty();
  }

  @Test
  void whatStandsInAColumnSpeaksWhereItsNameDoesNot() {
    Guess engine = one("x", "PostgreSQL", "mariadb", "Oracle", "SQL Server", "unsure");
    assertThat(engine.column().target()).isEqualTo("engine");
    assertThat(engine.certainty()).isEqualTo(Certainty.CONTENT);
    assertThat(engine.why()).isEqualTo("4 of 5 values are such");
    assertThat(one("x", "red", "blue").certainty()).isEqualTo(Certainty.NONE);
    assertThat(one("x").why()).isEqualTo("the column is empty");
  }

  @Test
  void aTargetIsGuessedOnceAndTheSurerColumnHasIt() {
    List<Guess> guesses =
        ColumnGuess.of(List.of("Owned by", "owner", "Contact"), List.of(List.of("a", "b", "c")));
    assertThat(guesses).extracting(g -> g.column().target()).containsExactly("", "owner", "");
    assertThat(guesses.get(2).why()).contains("another column already");
  }

  @Test
  void theHeaderIsTheRowWithMostKnownNames() {
    assertThat(
            ColumnGuess.headerRow(
                List.of(
                    List.of("Database list 2026"),
                    List.of("as of", "4 March"),
                    List.of("Server", "DB", "Owner"),
                    List.of("A", "b", "Ann"))))
        .isEqualTo(2);
    assertThat(ColumnGuess.headerRow(List.of(List.of("q"), List.of("w", "e")))).isEqualTo(1);
    assertThat(ColumnGuess.headerRow(List.of())).isZero();
  }

  @Test
  void filesOfOneShapeAreKnownAgain() {
    assertThat(ColumnGuess.shape(List.of("Server ", "DB_Name")))
        .isEqualTo(ColumnGuess.shape(List.of("server", "db name")))
        .isNotEqualTo(ColumnGuess.shape(List.of("db name", "server")));
  }

  @Test
  void everyTargetIsAKeyOrAnAttribute() {
    assertThat(ColumnGuess.targets()).doesNotHaveDuplicates().contains("database", "size_bytes");
    for (String target : ColumnGuess.targets()) {
      assertThat(ColumnGuess.KEYS.contains(target) || Attribute.ofColumn(target).isPresent())
          .isTrue();
    }
  }
}
