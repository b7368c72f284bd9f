package org.transitum.core.inventory;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.transitum.core.InvalidValue;

class ByteOrderTest {
  @ParameterizedTest
  @CsvSource({
    "x86_64-pc-linux-gnu, LITTLE_ENDIAN",
    "aarch64-unknown-linux-gnu, LITTLE_ENDIAN",
    "powerpc64le-unknown-linux-gnu, LITTLE_ENDIAN",
    "ppc64le, LITTLE_ENDIAN",
    "powerpc64-unknown-linux-gnu, BIG_ENDIAN",
    "ppc64, BIG_ENDIAN",
    "powerpc-ibm-aix7.2.0.0, BIG_ENDIAN",
    "s390x-ibm-linux-gnu, BIG_ENDIAN",
    "sparc-sun-solaris2.11, BIG_ENDIAN",
    "ia64-hp-hpux11.31, BIG_ENDIAN",
    "msvc-19.38.33135-x86_64, LITTLE_ENDIAN",
  })
  void isKnownFromThePlatformThatAServerNames(String platform, ByteOrder order) {
    assertThat(ByteOrder.ofPlatform(platform)).contains(order);
  }

  @Test
  void isNotMadeUpForAPlatformThatDoesNotTell() {
    assertThat(ByteOrder.ofPlatform("")).isEmpty();
    assertThat(ByteOrder.ofPlatform("Linux")).isEmpty();
    assertThat(ByteOrder.ofPlatform("Solaris 11")).isEmpty();
  }

  @Test
  void isWrittenInOneWay() {
    assertThat(AttributeType.BYTE_ORDER.canonical("LE")).isEqualTo("little-endian");
    assertThat(AttributeType.BYTE_ORDER.canonical("Big Endian")).isEqualTo("big-endian");
    assertThatThrownBy(() -> AttributeType.BYTE_ORDER.canonical("middle"))
        .isInstanceOf(InvalidValue.class)
        .hasMessageContaining("little-endian, big-endian");
  }
}
