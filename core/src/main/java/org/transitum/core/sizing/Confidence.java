package org.transitum.core.sizing;

/** How far a demand can be trusted, with the reason in words. */
public record Confidence(Level level, String reason) {
  public enum Level {
    HIGH,
    FAIR,
    LOW,
    NONE
  }

  /**
   * @param days length of the series within the look-back
   * @param coverageRatio 0 to 1
   * @param monthEndSeen whether the last two days of some month lie in the window
   */
  static Confidence of(double days, double coverageRatio, boolean monthEndSeen) {
    String length = days < 2 ? "%.0f hours".formatted(days * 24) : "%.0f days".formatted(days);
    String seen =
        "%s, coverage %.1f%%, %s"
            .formatted(
                length, coverageRatio * 100, monthEndSeen ? "month end seen" : "no month end seen");
    if (days < 7 || coverageRatio < 0.5) {
      return new Confidence(Level.LOW, seen);
    }
    if (days < 21 || coverageRatio < 0.9 || !monthEndSeen) {
      return new Confidence(Level.FAIR, seen);
    }
    return new Confidence(Level.HIGH, seen);
  }
}
