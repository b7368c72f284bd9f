package org.transitum.sources.inventory;

import org.transitum.core.InvalidValue;

/**
 * How a live server is reached.
 *
 * @param database the one to connect to first; of a service over HTTP the path before what is asked
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

  /**
   * The host as it may stand in a connection's address: checked, so that it smuggles nothing in.
   */
  String hostInUrl() {
    if (!host.matches("[A-Za-z0-9._-]{1,253}|[0-9A-Fa-f:.]{2,45}")) {
      throw new InvalidValue("\"%s\" is no host name or address.".formatted(host));
    }
    return host.contains(":") ? "[" + host + "]" : host;
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
