package org.transitum.collector;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermission;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.transitum.core.InvalidValue;

/**
 * Where a password or token stands: an environment variable or a file, never an argument, which
 * every user of the machine could read. Read anew each time, so that it can be changed while a
 * collection runs.
 */
record Secret(@Nullable String variable, @Nullable Path file) {

  static Secret ofVariable(String variable) {
    return new Secret(variable, null);
  }

  static Secret ofFile(Path file) {
    return new Secret(null, file);
  }

  /**
   * @throws InvalidValue naming where it was looked for
   */
  String read() {
    if (file == null) {
      String value = variable == null ? null : System.getenv(variable);
      if (value == null || value.isEmpty()) {
        throw new InvalidValue("The environment variable %s is not set.".formatted(variable));
      }
      return value;
    }
    try {
      requirePrivate(file);
      try (var lines = Files.lines(file)) {
        return lines
            .findFirst()
            .filter(line -> !line.isEmpty())
            .orElseThrow(() -> new InvalidValue("%s is empty.".formatted(file)));
      }
    } catch (IOException e) {
      throw new InvalidValue("%s cannot be read: %s.".formatted(file, e.getMessage()));
    }
  }

  private static void requirePrivate(Path file) throws IOException {
    if (!Files.getFileStore(file).supportsFileAttributeView("posix")) {
      return;
    }
    Set<PosixFilePermission> rights = Files.getPosixFilePermissions(file);
    if (rights.contains(PosixFilePermission.OTHERS_READ)
        || rights.contains(PosixFilePermission.GROUP_READ)) {
      throw new InvalidValue(
          "%s can be read by others; make it yours alone with: chmod 600 %s".formatted(file, file));
    }
  }

  /** Where it is read from, for messages. */
  @Override
  public String toString() {
    return file == null ? "$" + variable : file.toString();
  }
}
