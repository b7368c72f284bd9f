package org.transitum.sources.files;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.Reader;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;

/**
 * A text file's characters: byte-order marks are honoured and dropped, UTF-8 is strict, and what is
 * plainly no text (empty, a zip, a binary) is refused before anything else looks at it.
 */
public final class TextSource {
  private static final int SNIFF = 8_192;

  private final String file;
  private final Reader reader;
  private final char delimiter;

  private TextSource(String file, Reader reader, char delimiter) {
    this.file = file;
    this.reader = reader;
    this.delimiter = delimiter;
  }

  /**
   * @throws BadFile when the content is no text
   */
  public static TextSource open(String file, InputStream content) throws IOException {
    BufferedInputStream in = new BufferedInputStream(content, 1 << 16);
    in.mark(SNIFF);
    byte[] head = in.readNBytes(SNIFF);
    in.reset();
    if (head.length == 0) {
      throw BadFile.whole(file, "The file is empty. Choose a file with a header row and data.");
    }
    if (head.length > 3 && head[0] == 'P' && head[1] == 'K' && head[2] < 9) {
      throw BadFile.whole(
          file,
          "This is a zip archive (a workbook, perhaps), not a CSV. Unpack it, or save the sheet as CSV.");
    }
    Charset charset = StandardCharsets.UTF_8;
    int skip = 0;
    if (starts(head, 0xEF, 0xBB, 0xBF)) {
      skip = 3;
    } else if (starts(head, 0xFF, 0xFE)) {
      charset = StandardCharsets.UTF_16LE;
      skip = 2;
    } else if (starts(head, 0xFE, 0xFF)) {
      charset = StandardCharsets.UTF_16BE;
      skip = 2;
    } else if (containsZero(head)) {
      throw BadFile.whole(file, "This is a binary file, not a CSV. Export it as CSV in UTF-8.");
    }
    in.skipNBytes(skip);
    Reader reader =
        new InputStreamReader(
            in,
            charset
                .newDecoder()
                .onMalformedInput(CodingErrorAction.REPORT)
                .onUnmappableCharacter(CodingErrorAction.REPORT));
    String firstLine =
        new String(head, skip, head.length - skip, charset).lines().findFirst().orElse("");
    return new TextSource(file, reader, delimiterOf(firstLine));
  }

  private static boolean starts(byte[] head, int... bytes) {
    if (head.length < bytes.length) {
      return false;
    }
    for (int i = 0; i < bytes.length; i++) {
      if ((head[i] & 0xFF) != bytes[i]) {
        return false;
      }
    }
    return true;
  }

  private static boolean containsZero(byte[] head) {
    for (byte b : head) {
      if (b == 0) {
        return true;
      }
    }
    return false;
  }

  private static char delimiterOf(String header) {
    char best = ',';
    long most = 0;
    for (char candidate : new char[] {',', ';', '\t', '|'}) {
      long count = header.chars().filter(c -> c == candidate).count();
      if (count > most) {
        most = count;
        best = candidate;
      }
    }
    return best;
  }

  public String file() {
    return file;
  }

  public Reader reader() {
    return reader;
  }

  /** The character that separates the header's columns. */
  public char delimiter() {
    return delimiter;
  }
}
