package org.transitum.sources.files;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Collects a file's problems, so that they are reported all together. */
public final class Problems {
  /** How many are kept; the rest are only counted. */
  public static final int MOST = 100;

  private final String file;
  private final List<FileProblem> kept = new ArrayList<>();
  private long total;

  public Problems(String file) {
    this.file = file;
  }

  String file() {
    return file;
  }

  public void add(@Nullable Long row, @Nullable String column, @Nullable String sentence) {
    total++;
    if (kept.size() < MOST) {
      kept.add(new FileProblem(file, row, column, sentence == null ? "cannot be read." : sentence));
    }
  }

  /**
   * @throws BadFile when anything was added
   */
  public void throwIfAny() {
    throwIfAny(false);
  }

  /**
   * @param restReadable whether the file can be read without what was named
   * @throws BadFile when anything was added
   */
  public void throwIfAny(boolean restReadable) {
    if (total > 0) {
      throw new BadFile(kept, total, restReadable);
    }
  }

  /** What was added, a sentence each, for a file that was read without it. */
  public List<String> leftOut() {
    List<String> lines = new ArrayList<>();
    for (FileProblem problem : kept) {
      lines.add("Left out: " + problem.line());
    }
    if (total > kept.size()) {
      lines.add("Left out: %,d more like these.".formatted(total - kept.size()));
    }
    return lines;
  }
}
