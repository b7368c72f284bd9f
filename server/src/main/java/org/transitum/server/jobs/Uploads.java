package org.transitum.server.jobs;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;
import org.transitum.sources.files.BadFile;

/** Keeps files of any size aside, so that they can be read as jobs while the browser goes on. */
@Component
public class Uploads {
  private static final int BLOCK = 1 << 22;

  private final Path folder;
  private final long leastFreeBytes;

  Uploads(
      @Value("${transitum.data}") Path data,
      @Value("${transitum.least-free-mib}") long leastFreeMib)
      throws IOException {
    this.folder = data.resolve("uploads");
    this.leastFreeBytes = leastFreeMib << 20;
    clean();
  }

  /** The jobs that would have read what a stopped server left behind are marked failed. */
  private void clean() throws IOException {
    Files.createDirectories(folder);
    try (Stream<Path> left = Files.list(folder)) {
      for (Path file : left.toList()) {
        Files.deleteIfExists(file);
      }
    }
  }

  /**
   * Keeps a file until its reader deletes it.
   *
   * @throws BadFile when it broke off or the disk has no room for it; nothing is left then
   */
  public Path keep(String name, InputStream content) throws IOException {
    Path file = Files.createTempFile(folder, "upload-", "");
    try {
      copy(name, content, file);
      return file;
    } catch (IOException e) {
      Files.deleteIfExists(file);
      throw BadFile.whole(name, "The upload broke off; nothing was stored. Send the file again.");
    } catch (BadFile e) {
      Files.deleteIfExists(file);
      throw e;
    }
  }

  /** The records need room to grow beside the uploads, so some of the disk stays free. */
  private void copy(String name, InputStream content, Path file) throws IOException {
    byte[] block = new byte[BLOCK];
    try (OutputStream out = Files.newOutputStream(file)) {
      for (int n = content.readNBytes(block, 0, block.length);
          n > 0;
          n = content.readNBytes(block, 0, block.length)) {
        long room = Files.getFileStore(folder).getUsableSpace() - leastFreeBytes;
        if (room < n) {
          throw BadFile.whole(
              name,
              "The server's disk has no room for it: %,d MiB must stay free. Free some, or read the file in parts."
                  .formatted(leastFreeBytes >> 20));
        }
        out.write(block, 0, n);
      }
    }
  }
}
