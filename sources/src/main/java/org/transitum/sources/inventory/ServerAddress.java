package org.transitum.sources.inventory;

/**
 * How a live server is reached.
 *
 * @param database the one to connect to first
 * @param tls as the driver's sslmode
 */
public record ServerAddress(
    String host, int port, String database, String user, String password, TlsMode tls) {

  public enum TlsMode {
    DISABLE("disable"),
    PREFER("prefer"),
    REQUIRE("require"),
    VERIFY("verify-full");

    private final String sslMode;

    TlsMode(String sslMode) {
      this.sslMode = sslMode;
    }

    String sslMode() {
      return sslMode;
    }
  }

  public ServerAddress withDatabase(String other) {
    return new ServerAddress(host, port, other, user, password, tls);
  }

  /** Never shows the password. */
  @Override
  public String toString() {
    return "%s:%d/%s as %s".formatted(host, port, database, user);
  }
}
