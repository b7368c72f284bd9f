package org.transitum.sources.inventory;

import org.jspecify.annotations.Nullable;

/** A server that could not be read at all, with a sentence that says why and what to do. */
public final class Unreachable extends RuntimeException {
  private static final long serialVersionUID = 1L;

  public Unreachable(String sentence, @Nullable Throwable cause) {
    super(sentence, cause);
  }
}
