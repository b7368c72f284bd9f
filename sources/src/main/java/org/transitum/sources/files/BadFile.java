package org.transitum.sources.files;

import java.util.List;

/**
 * A file that was not taken, with everything found wrong in it (the first {@link Problems#MOST}).
 */
public final class BadFile extends RuntimeException {
  private static final long serialVersionUID = 1L;

  private final transient List<FileProblem> problems;
  private final long total;
  private final boolean restReadable;

  public BadFile(List<FileProblem> problems, long total) {
    this(problems, total, false);
  }

  /**
   * @param restReadable whether the file can be read without what the problems name
   */
  public BadFile(List<FileProblem> problems, long total, boolean restReadable) {
    super(problems.isEmpty() ? "bad file" : problems.get(0).line());
    this.problems = List.copyOf(problems);
    this.total = total;
    this.restReadable = restReadable;
  }

  public static BadFile whole(String file, String sentence) {
    return new BadFile(List.of(new FileProblem(file, null, null, sentence)), 1);
  }

  public List<FileProblem> problems() {
    return problems;
  }

  /** Whether the file can be read without what the problems name. */
  public boolean restReadable() {
    return restReadable;
  }

  /** How many problems there are, listed or not. */
  public long total() {
    return total;
  }
}
