package org.transitum.core.inventory;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.List;
import java.util.Locale;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.transitum.core.InvalidValue;

/** What must hold for any text that people may write, with random texts from a fixed seed. */
class WrittenValuePropertyTest {
  private static final int ROUNDS = 4_000;
  private static final List<String> PIECES =
      List.of(
          "1",
          "20",
          "007",
          "1,024",
          "1.5",
          "0,85",
          "-3",
          "+4",
          "1'000",
          "1 234",
          ".",
          ",",
          "GB",
          "TiB",
          "mb",
          "bytes",
          "kB",
          "EB",
          "min",
          "h",
          "days",
          "vCPU",
          "tables",
          "yes",
          "off",
          "NULL",
          "n/a",
          "—",
          "=1+1",
          "٣",
          "½",
          "1e309",
          "NaN",
          "Infinity",
          "0x10",
          "2026-11-24",
          "24.11.2026",
          "11/24/2026",
          "30 Feb 2026",
          "Nov",
          "\u00a0",
          "\u202f",
          "\t",
          "\"",
          "%",
          "/",
          "99999999999999999999",
          "🙂",
          "\u0000");

  private static String written(SplittableRandom random) {
    StringBuilder text = new StringBuilder();
    for (int i = random.nextInt(1, 5); i > 0; i--) {
      text.append(PIECES.get(random.nextInt(PIECES.size())));
      text.append(random.nextInt(3) == 0 ? " " : "");
    }
    return text.toString();
  }

  /** A value that was understood is understood the same when it is read again. */
  @Test
  void whateverIsWrittenIsRefusedInWordsOrHasOneCanonicalForm() {
    SplittableRandom random = new SplittableRandom(1);
    int understood = 0;
    for (int round = 0; round < ROUNDS; round++) {
      String text = written(random);
      for (AttributeType type : AttributeType.values()) {
        String canonical;
        try {
          canonical = type.canonical(text);
        } catch (InvalidValue e) {
          assertThat(e.getMessage()).as(type + " of \"" + text + "\"").isNotBlank();
          continue;
        }
        understood++;
        assertThat(type.canonical(canonical))
            .as(type + " of \"" + text + "\"")
            .isEqualTo(canonical);
      }
    }
    assertThat(understood).isGreaterThan(ROUNDS);
  }

  /** However a size is written, it is that many bytes; grouping, spaces and case say nothing. */
  @Test
  void aSizeIsTheSameInEveryWriting() {
    SplittableRandom random = new SplittableRandom(2);
    String[] units = {"B", "KB", "MB", "GB", "TB"};
    for (int round = 0; round < ROUNDS; round++) {
      int power = random.nextInt(units.length);
      long hundredths = random.nextLong(1, 100_000_000);
      BigDecimal amount = BigDecimal.valueOf(hundredths, 2);
      String expected =
          amount
              .multiply(BigDecimal.valueOf(1L << (10 * power)))
              .setScale(0, RoundingMode.HALF_UP)
              .toPlainString();
      String unit = units[power];
      String binary = power == 0 ? unit : unit.charAt(0) + "iB";
      for (String text :
          List.of(
              amount.toPlainString() + unit,
              amount.toPlainString() + " " + unit.toLowerCase(Locale.ROOT),
              String.format(Locale.ROOT, "%,.2f %s", amount, unit),
              String.format(Locale.ROOT, "%,.2f%s", amount, binary),
              String.format(Locale.ROOT, "%.2f %s", amount, unit).replace('.', ','))) {
        assertThat(AttributeType.BYTES.canonical(text)).as(text).isEqualTo(expected);
      }
    }
  }

  /**
   * Days of the month up to 12 with slashes are refused, as two countries read them differently.
   */
  @Test
  void noDateIsGuessed() {
    for (int day = 1; day <= 12; day++) {
      for (int month = 1; month <= 12; month++) {
        String text = day + "/" + month + "/2026";
        if (day == month) {
          assertThat(AttributeType.DATE.canonical(text)).contains("2026-");
        } else {
          assertThatThrownBy(() -> AttributeType.DATE.canonical(text))
              .isInstanceOf(InvalidValue.class);
        }
      }
    }
  }
}
