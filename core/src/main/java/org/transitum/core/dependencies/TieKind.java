package org.transitum.core.dependencies;

/** How two databases depend on each other. */
public enum TieKind {
  /** Must cross together. */
  BOUND,
  /** The first must not cross later than the second. */
  ORDERED,
  /** May be split, at a cost for each day while it is split. */
  LOOSE
}
