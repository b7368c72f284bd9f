package org.transitum.core.inventory;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class AttributeTypeTest {

  @ParameterizedTest
  @CsvSource({
    "BYTES, 0042, 42",
    "BYTES, 1.5 TB, 1649267441664",
    "BYTES, '1,5 TiB', 1649267441664",
    "BYTES, 512MB, 536870912",
    "BYTES, '1,024 KiB', 1048576",
    "BYTES, 3 bytes, 3",
    "MINUTES, 4 h, 240",
    "MINUTES, 1.5 hours, 90",
    "MINUTES, 1 day, 1440",
    "INTEGER, '12,204', 12204",
    "INTEGER, 17 tables, 17",
    "DECIMAL, 16 vCPU, 16",
    "DECIMAL, '0,85', 0.85",
    "DATE, 24.11.2026, 2026-11-24",
    "DATE, 4 Nov 2026, 2026-11-04",
    "DATE, 24/11/2026, 2026-11-24",
    "DATE, 11/24/2026, 2026-11-24",
    "ENVIRONMENT, PROD, production",
    "DECIMAL, 1.50, 1.5",
    "DECIMAL, 0.0, 0",
    "BOOLEAN, ON, yes",
    "ENGINE, postgres, PostgreSQL",
    "ENGINE, sql-server, SQL Server",
    "ENVIRONMENT, Production, production",
    "LIST, 'b; a, b', 'a, b'"
  })
  void equalValuesHaveOneForm(AttributeType type, String written, String canonical) {
    assertThat(type.canonical(written)).isEqualTo(canonical);
  }

  @ParameterizedTest
  @CsvSource({
    "BYTES, 12 apples",
    "BYTES, -1",
    "BYTES, 99999999 PB",
    "BYTES, 1.2.3 GB",
    "MINUTES, 5 moons",
    "INTEGER, 1.5",
    "DECIMAL, 1e99999",
    "DATE, 31.02.2026",
    "DATE, 03/04/2026",
    "BOOLEAN, maybe",
    "ENGINE, abacus",
    "CRITICALITY, vital",
    "DISPOSITION, lift"
  })
  void whatCannotBeTakenIsNamed(AttributeType type, String written) {
    assertThatThrownBy(() -> type.canonical(written)).hasMessageContaining(written);
  }

  @Test
  void aKeyNeedsBothParts() {
    assertThat(DatabaseKey.parse("A/b/c").name()).isEqualTo("b/c");
    assertThatThrownBy(() -> DatabaseKey.parse("A")).hasMessageContaining("INSTANCE/database");
    assertThatThrownBy(() -> new DatabaseKey("A", " ")).isNotNull();
  }
}
