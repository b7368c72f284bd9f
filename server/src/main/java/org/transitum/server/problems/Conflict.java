package org.transitum.server.problems;

import org.jspecify.annotations.Nullable;

/** Somebody changed the same thing first; carries both values, so that the second can choose. */
public final class Conflict extends RuntimeException {
  private static final long serialVersionUID = 1L;

  private final String yours;
  private final String theirs;
  private final long version;

  /**
   * @param version the one to send again with, when the person insists
   */
  public Conflict(String sentence, @Nullable String yours, @Nullable String theirs, long version) {
    super(sentence);
    this.yours = yours == null ? "" : yours;
    this.theirs = theirs == null ? "" : theirs;
    this.version = version;
  }

  public String yours() {
    return yours;
  }

  public String theirs() {
    return theirs;
  }

  public long version() {
    return version;
  }
}
