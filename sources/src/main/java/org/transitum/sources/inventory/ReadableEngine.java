package org.transitum.sources.inventory;

/** The engines whose live servers can be read. */
public enum ReadableEngine {
  POSTGRESQL(5432),
  /** Also MySQL; the server tells which of the two it is. */
  MARIADB(3306),
  /** Any other, told as JSON over HTTP; see {@link JsonService}. */
  OTHER(443);

  private final int defaultPort;

  ReadableEngine(int defaultPort) {
    this.defaultPort = defaultPort;
  }

  public int defaultPort() {
    return defaultPort;
  }
}
