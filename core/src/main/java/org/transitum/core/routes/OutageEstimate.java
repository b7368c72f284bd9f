package org.transitum.core.routes;

/**
 * How long a database is down while it crosses, in its first form: offline where the permitted
 * outage allows it, else a following route.
 *
 * <p>Offline takes the copy itself at half of the link (export, transfer and load overlap badly on
 * unknown storage) plus a fixed half hour for proof and reconnecting. A following route copies
 * ahead and is down for {@value #FOLLOWING_MINUTES} minutes of draining, switching and proving.
 *
 * @param outageMinutes planning value, nine in ten
 * @param copyMinutes how long the link is busy
 * @param following whether the route keeps following the source while it is in use
 */
public record OutageEstimate(long outageMinutes, long copyMinutes, boolean following) {

  static final long FOLLOWING_MINUTES = 45;
  private static final long FIXED_MINUTES = 30;
  private static final double SHARE_OF_LINK = 0.5;

  /**
   * @param permittedMinutes how long the application may be down
   * @param linkBytesPerSecond of the link to the target, above 0
   */
  public static OutageEstimate of(long bytes, long permittedMinutes, long linkBytesPerSecond) {
    double seconds = bytes / (linkBytesPerSecond * SHARE_OF_LINK);
    long copy = (long) Math.ceil(seconds / 60);
    long offline = copy + FIXED_MINUTES;
    return offline <= permittedMinutes
        ? new OutageEstimate(offline, copy, false)
        : new OutageEstimate(FOLLOWING_MINUTES, copy, true);
  }
}
