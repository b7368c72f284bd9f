package org.transitum.core.inventory;

import java.util.Locale;
import java.util.Optional;

/** The database engines the inventory knows by name; anything else is kept as {@link #OTHER}. */
public enum Engine {
  POSTGRESQL("PostgreSQL"),
  MARIADB("MariaDB"),
  MYSQL("MySQL"),
  SQLSERVER("SQL Server"),
  ORACLE("Oracle"),
  DB2("Db2"),
  OTHER("other");

  private final String label;

  Engine(String label) {
    this.label = label;
  }

  public String label() {
    return label;
  }

  /** The engine written as {@code "SQL Server"}, {@code "sqlserver"} or {@code "sql-server"}. */
  public static Optional<Engine> parse(String text) {
    String wanted = plain(text);
    for (Engine engine : values()) {
      if (plain(engine.label).equals(wanted) || plain(engine.name()).equals(wanted)) {
        return Optional.of(engine);
      }
    }
    return wanted.equals("postgres") ? Optional.of(POSTGRESQL) : Optional.empty();
  }

  private static String plain(String text) {
    return text.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]", "");
  }
}
