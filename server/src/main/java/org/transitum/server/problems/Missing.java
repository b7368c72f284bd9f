package org.transitum.server.problems;

/** Something that is not there. */
public final class Missing extends RuntimeException {
  private static final long serialVersionUID = 1L;

  public Missing(String sentence) {
    super(sentence);
  }
}
