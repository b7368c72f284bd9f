package org.transitum.sources.files;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import org.jspecify.annotations.Nullable;
import org.mozilla.universalchardet.UniversalDetector;

/**
 * A whole file of people's size, and its text in whatever encoding it came.
 *
 * @param charset how it was decoded
 * @param guessed whether the encoding was guessed, as the file neither says it nor is UTF-8
 */
record FileBytes(String text, Charset charset, boolean guessed) {
  static final long MOST_BYTES = 64L << 20;

  /**
   * @throws BadFile when there are more than {@link #MOST_BYTES}
   */
  static byte[] read(String file, InputStream content) {
    try {
      byte[] bytes = content.readNBytes((int) MOST_BYTES + 1);
      if (bytes.length > MOST_BYTES) {
        throw BadFile.whole(
            file,
            "The file is larger than %d MiB, too large for an inventory. Split it; counters go to the counters import."
                .formatted(MOST_BYTES >> 20));
      }
      if (bytes.length == 0) {
        throw BadFile.whole(file, "The file is empty. Choose a file with a header row and data.");
      }
      return bytes;
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  static boolean isZip(byte[] bytes) {
    return bytes.length > 3 && bytes[0] == 'P' && bytes[1] == 'K' && bytes[2] < 9;
  }

  /**
   * Decodes by byte-order mark, as UTF-8 where that fits without an error, as UTF-16 where every
   * other byte is zero, else as what the bytes look like most.
   *
   * @throws BadFile when it is no text
   */
  static FileBytes decode(String file, byte[] bytes) {
    Charset marked = marked(bytes);
    if (marked != null) {
      int skip = marked.equals(StandardCharsets.UTF_8) ? 3 : 2;
      String text = strict(bytes, skip, marked);
      if (text == null) {
        throw BadFile.whole(
            file, "The file begins as %s but goes on otherwise. Save it again.".formatted(marked));
      }
      return new FileBytes(text, marked, false);
    }
    Charset wide = wide(bytes);
    if (wide != null) {
      String text = strict(bytes, 0, wide);
      if (text != null) {
        return new FileBytes(text, wide, true);
      }
    }
    if (wide == null && containsZero(bytes)) {
      throw BadFile.whole(file, "This is a binary file, not a table. Export it as CSV in UTF-8.");
    }
    String utf8 = strict(bytes, 0, StandardCharsets.UTF_8);
    return utf8 != null ? new FileBytes(utf8, StandardCharsets.UTF_8, false) : guess(file, bytes);
  }

  private static FileBytes guess(String file, byte[] bytes) {
    UniversalDetector detector = new UniversalDetector();
    detector.handleData(bytes, 0, Math.min(bytes.length, 1 << 20));
    detector.dataEnd();
    String name = detector.getDetectedCharset();
    Charset charset =
        name != null && Charset.isSupported(name)
            ? Charset.forName(name)
            : Charset.forName("windows-1252");
    String text = strict(bytes, 0, charset);
    if (text == null) {
      throw BadFile.whole(
          file, "The file mixes encodings, or is no text. Save it again with the encoding UTF-8.");
    }
    return new FileBytes(text, charset, true);
  }

  private static @Nullable String strict(byte[] bytes, int skip, Charset charset) {
    try {
      return charset
          .newDecoder()
          .onMalformedInput(CodingErrorAction.REPORT)
          .onUnmappableCharacter(CodingErrorAction.REPORT)
          .decode(ByteBuffer.wrap(bytes, skip, bytes.length - skip))
          .toString();
    } catch (CharacterCodingException e) {
      return null;
    }
  }

  private static @Nullable Charset marked(byte[] b) {
    if (b.length >= 3 && (b[0] & 0xFF) == 0xEF && (b[1] & 0xFF) == 0xBB && (b[2] & 0xFF) == 0xBF) {
      return StandardCharsets.UTF_8;
    }
    if (b.length >= 2 && (b[0] & 0xFF) == 0xFF && (b[1] & 0xFF) == 0xFE) {
      return StandardCharsets.UTF_16LE;
    }
    return b.length >= 2 && (b[0] & 0xFF) == 0xFE && (b[1] & 0xFF) == 0xFF
        ? StandardCharsets.UTF_16BE
        : null;
  }

  /** UTF-16 without a mark: text of Europe's scripts has a zero in every other byte. */
  private static @Nullable Charset wide(byte[] bytes) {
    int looked = Math.min(bytes.length & ~1, 4_096);
    int even = 0;
    int odd = 0;
    for (int i = 0; i < looked; i += 2) {
      even += bytes[i] == 0 ? 1 : 0;
      odd += bytes[i + 1] == 0 ? 1 : 0;
    }
    int most = looked / 2;
    if (most >= 8 && odd > 0.7 * most && even == 0) {
      return StandardCharsets.UTF_16LE;
    }
    return most >= 8 && even > 0.7 * most && odd == 0 ? StandardCharsets.UTF_16BE : null;
  }

  private static boolean containsZero(byte[] bytes) {
    for (int i = 0; i < Math.min(bytes.length, 1 << 16); i++) {
      if (bytes[i] == 0) {
        return true;
      }
    }
    return false;
  }
}
