package org.transitum.core.inventory;

import static org.transitum.core.inventory.AttributeType.BOOLEAN;
import static org.transitum.core.inventory.AttributeType.BYTES;
import static org.transitum.core.inventory.AttributeType.DATE;
import static org.transitum.core.inventory.AttributeType.DECIMAL;
import static org.transitum.core.inventory.AttributeType.INTEGER;
import static org.transitum.core.inventory.AttributeType.LIST;
import static org.transitum.core.inventory.AttributeType.MINUTES;
import static org.transitum.core.inventory.AttributeType.TEXT;
import static org.transitum.core.inventory.ObjectKind.APPLICATION;
import static org.transitum.core.inventory.ObjectKind.DATABASE;
import static org.transitum.core.inventory.ObjectKind.HOST;
import static org.transitum.core.inventory.ObjectKind.INSTANCE;

import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/**
 * What can be known about an estate object. The column name is the same in files, API and records.
 */
public enum Attribute {
  SITE("site", TEXT, HOST),
  OPERATING_SYSTEM("operating system", TEXT, HOST),
  BYTE_ORDER("byte order", AttributeType.BYTE_ORDER, HOST),
  CPU_CORES("CPU cores", DECIMAL, HOST),
  CPU_INDEX("CPU speed index", DECIMAL, HOST),
  MEMORY_BYTES("memory", BYTES, HOST),

  HOST_NAME("host", TEXT, INSTANCE),
  ENGINE("engine", AttributeType.ENGINE, INSTANCE),
  VERSION("version", TEXT, INSTANCE),
  EDITION("edition", TEXT, INSTANCE),
  PORT("port", INTEGER, INSTANCE),
  SUPPORT_END("support ends", DATE, INSTANCE),
  CACHE_BYTES("configured cache", BYTES, INSTANCE),
  MAX_CONNECTIONS("connection limit", INTEGER, INSTANCE),
  LOG_MODE("log mode", TEXT, INSTANCE),
  REPLICATION_SLOTS("replication slots", INTEGER, INSTANCE),
  TIME_ZONE("time zone", TEXT, INSTANCE),
  PAGE_CHECKSUMS("page checksums", BOOLEAN, INSTANCE),
  TLS("TLS offered", BOOLEAN, INSTANCE),
  ROLES("roles", INTEGER, INSTANCE),
  ROLES_WITH_ALL_RIGHTS("roles with all rights", INTEGER, INSTANCE),
  LOG_RETENTION("log retention", TEXT, INSTANCE),
  REPLICATION("replication", TEXT, INSTANCE),
  SQL_MODE("SQL mode", LIST, INSTANCE),
  LOWER_CASE_TABLE_NAMES("lower-case table names", TEXT, INSTANCE),
  PLUGINS("plug-ins", LIST, INSTANCE),

  SIZE_BYTES("size", BYTES, DATABASE),
  GROWTH_PERCENT_PER_YEAR("growth a year, %", DECIMAL, DATABASE),
  ENCODING("encoding", TEXT, DATABASE),
  COLLATION("collation", TEXT, DATABASE),
  COMPATIBILITY("compatibility setting", TEXT, DATABASE),
  EXTENSIONS("extensions", LIST, DATABASE),
  FEATURES("features in use", LIST, DATABASE),
  TABLES("tables", INTEGER, DATABASE),
  TABLES_WITHOUT_KEY("tables without key", INTEGER, DATABASE),
  VIEWS("views", INTEGER, DATABASE),
  ROUTINES("routines", INTEGER, DATABASE),
  SEQUENCES("sequences", INTEGER, DATABASE),
  TRIGGERS("triggers", INTEGER, DATABASE),
  LARGE_OBJECTS("large objects", INTEGER, DATABASE),
  BROKEN_VIEWS("broken views", INTEGER, DATABASE),
  ROUTINE_LANGUAGES("routine languages", LIST, DATABASE),
  EVENTS("events and jobs", INTEGER, DATABASE),
  STORAGE_ENGINES("storage engines", LIST, DATABASE),
  BIGGEST_TABLES("biggest tables", LIST, DATABASE),
  ENVIRONMENT("environment", AttributeType.ENVIRONMENT, DATABASE),
  APPLICATION_NAME("application", TEXT, DATABASE),
  DISPOSITION("disposition", AttributeType.DISPOSITION, DATABASE),

  OWNER("owner", TEXT, DATABASE, APPLICATION),
  CRITICALITY("criticality", AttributeType.CRITICALITY, DATABASE, APPLICATION),
  PERMITTED_OUTAGE_MINUTES("may be down", MINUTES, DATABASE, APPLICATION),
  NOTE("note", TEXT, HOST, INSTANCE, DATABASE, APPLICATION);

  private final String label;
  private final AttributeType type;
  private final Set<ObjectKind> kinds;

  Attribute(String label, AttributeType type, ObjectKind first, ObjectKind... others) {
    this.label = label;
    this.type = type;
    this.kinds = EnumSet.of(first, others);
  }

  /** The words a screen shows, sentence case, without unit. */
  public String label() {
    return label;
  }

  public AttributeType type() {
    return type;
  }

  public boolean describes(ObjectKind kind) {
    return kinds.contains(kind);
  }

  /** The name in files and the API, such as {@code size_bytes}. */
  public String column() {
    return switch (this) {
      case HOST_NAME -> "host";
      case APPLICATION_NAME -> "application";
      default -> name().toLowerCase(Locale.ROOT);
    };
  }

  public static Optional<Attribute> ofColumn(String column) {
    return Arrays.stream(values()).filter(a -> a.column().equals(column)).findFirst();
  }

  public static List<Attribute> of(ObjectKind kind) {
    return Arrays.stream(values()).filter(a -> a.describes(kind)).toList();
  }
}
