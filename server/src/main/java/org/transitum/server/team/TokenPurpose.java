package org.transitum.server.team;

/** The one thing that a token may do. */
public enum TokenPurpose {
  /** A collector's: to push bundles. */
  PUSH_BUNDLES
}
