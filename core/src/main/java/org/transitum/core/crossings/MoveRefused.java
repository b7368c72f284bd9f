package org.transitum.core.crossings;

/** A move that is not legal, with subject, from and why. */
public final class MoveRefused extends RuntimeException {
  private static final long serialVersionUID = 1L;

  public MoveRefused(String sentence) {
    super(sentence);
  }
}
