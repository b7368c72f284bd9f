package org.transitum.server.problems;

/** Something that the person or the state of things does not allow. */
public final class Refused extends RuntimeException {
  private static final long serialVersionUID = 1L;

  public Refused(String sentence) {
    super(sentence);
  }
}
