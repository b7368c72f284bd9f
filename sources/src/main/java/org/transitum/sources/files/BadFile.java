package org.transitum.sources.files;

import java.util.List;

/**
 * A file that was not taken, with everything found wrong in it (the first {@link Problems#MOST}).
 */
public final class BadFile extends RuntimeException {
  private static final long serialVersionUID = 1L;

  private final transient List<FileProblem> problems;
  private final long total;

  public BadFile(List<FileProblem> problems, long total) {
    super(problems.isEmpty() ? "bad file" : problems.get(0).line());
    this.problems = List.copyOf(problems);
    this.total = total;
  }

  public static BadFile whole(String file, String sentence) {
    return new BadFile(List.of(new FileProblem(file, null, null, sentence)), 1);
  }

  public List<FileProblem> problems() {
    return problems;
  }

  /** How many problems there are, listed or not. */
  public long total() {
    return total;
  }
}
