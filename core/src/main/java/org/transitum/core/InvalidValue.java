package org.transitum.core;

/**
 * A value that cannot be taken, with a sentence that names the value and says what to write
 * instead.
 */
public final class InvalidValue extends RuntimeException {
  private static final long serialVersionUID = 1L;

  public InvalidValue(String sentence) {
    super(sentence);
  }
}
