package org.transitum.core.inventory;

/** What an estate object is. Keys are unique within a kind. */
public enum ObjectKind {
  HOST,
  INSTANCE,
  DATABASE,
  APPLICATION
}
