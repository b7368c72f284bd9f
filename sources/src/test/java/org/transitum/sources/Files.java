package org.transitum.sources;

import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.io.ByteArrayInputStream;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import org.assertj.core.api.ThrowableAssert.ThrowingCallable;
import org.transitum.sources.files.BadFile;

/** Files as tests write them. */
public final class Files {
  private Files() {}

  public static InputStream of(String... lines) {
    return bytes((String.join("\n", lines) + "\n").getBytes(StandardCharsets.UTF_8));
  }

  public static InputStream bytes(byte[] bytes) {
    return new ByteArrayInputStream(bytes);
  }

  public static BadFile refused(ThrowingCallable reading) {
    return catchThrowableOfType(BadFile.class, reading);
  }
}
