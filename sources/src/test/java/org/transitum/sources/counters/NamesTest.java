package org.transitum.sources.counters;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.Map;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;

class NamesTest {
  private static int number(Names names, String written) {
    char[] buffer = ("ab" + written + "yz").toCharArray();
    return names.number(buffer, 2, written.length());
  }

  @Test
  void numbersEachNameOnceInTheOrderTheyCome() {
    Names names = new Names(5_000);
    Map<String, Integer> oracle = new HashMap<>();
    SplittableRandom random = new SplittableRandom(4);
    for (int i = 0; i < 40_000; i++) {
      String name = "HEAD-PG-%02d/d%d".formatted(random.nextInt(40), random.nextInt(100));
      int expected = oracle.computeIfAbsent(name, n -> oracle.size());
      assertThat(number(names, name)).isEqualTo(expected);
      assertThat(names.text(expected)).isEqualTo(name);
    }
  }

  @Test
  void spacesAroundANameAreNotOfIt() {
    Names names = new Names(10);
    assertThat(number(names, "one")).isZero();
    assertThat(number(names, " one\t")).isZero();
    assertThat(number(names, "o ne")).isEqualTo(1);
    assertThat(number(names, "  ")).isEqualTo(2);
    assertThat(names.text(2)).isEmpty();
  }

  @Test
  void refusesOneTooManyAndStillKnowsTheOthers() {
    Names names = new Names(2);
    number(names, "one");
    number(names, "two");
    assertThat(number(names, "three")).isEqualTo(Names.TOO_MANY);
    assertThat(number(names, "one")).isZero();
  }
}
