package org.transitum.core.inventory;

/** Where a fact came from: seen on a server, read from a file, or said by a person. */
public enum Origin {
  OBSERVED,
  IMPORTED,
  STATED
}
