package org.transitum.core.inventory;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * In which order a machine keeps the bytes of a number. Files cannot be reused, nor logs applied,
 * across it.
 */
public enum ByteOrder {
  LITTLE_ENDIAN(
      "little-endian",
      "(x86|x64|i[3-6]86|amd64|aarch64|arm64|ia64-linux|(powerpc|ppc)64le|mips64el|riscv64|loongarch64|windows|visual c)"),
  BIG_ENDIAN("big-endian", "(s390|sparc|hppa|hp-?ux|aix|(powerpc|ppc)(64)?(?!64|le)|mips64(?!el))");

  private final String label;
  private final Pattern platform;

  ByteOrder(String label, String platform) {
    this.label = label;
    this.platform = Pattern.compile(platform);
  }

  /** As written in files and on screens. */
  public String label() {
    return label;
  }

  static List<String> labels() {
    return Arrays.stream(values()).map(ByteOrder::label).toList();
  }

  /**
   * By the name that a server gives the platform it was built for, such as {@code
   * x86_64-pc-linux-gnu}; empty where the name does not tell.
   */
  public static Optional<ByteOrder> ofPlatform(String platform) {
    String name = platform.toLowerCase(Locale.ROOT);
    return Arrays.stream(values()).filter(one -> one.platform.matcher(name).find()).findFirst();
  }

  /** As people write it: {@code little}, {@code LE}, {@code Big Endian}. */
  static String canonical(String written) {
    String plain = written.toLowerCase(Locale.ROOT).replaceAll("[\\s_-]+", "");
    return switch (plain) {
      case "littleendian", "little", "le" -> LITTLE_ENDIAN.label;
      case "bigendian", "big", "be" -> BIG_ENDIAN.label;
      default -> written;
    };
  }
}
