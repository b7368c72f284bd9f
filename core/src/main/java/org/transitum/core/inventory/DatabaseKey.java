package org.transitum.core.inventory;

import org.transitum.core.InvalidValue;

/** A database's readable key: its instance and its name, as in {@code HEAD-PG-03/telemetry}. */
public record DatabaseKey(String instance, String name) {

  public DatabaseKey {
    if (instance.isBlank() || name.isBlank() || instance.contains("/")) {
      throw new InvalidValue(
          "\"%s/%s\" is not a database key; write INSTANCE/database with an instance name that has no slash."
              .formatted(instance, name));
    }
  }

  /** Parses at the first slash; a database name may itself hold slashes. */
  public static DatabaseKey parse(String text) {
    int slash = text.indexOf('/');
    if (slash < 0) {
      throw new InvalidValue(
          "\"%s\" is not a database key; write it as INSTANCE/database.".formatted(text));
    }
    return new DatabaseKey(text.substring(0, slash).strip(), text.substring(slash + 1).strip());
  }

  @Override
  public String toString() {
    return instance + "/" + name;
  }
}
