package org.transitum.sources.bundles;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.security.DigestOutputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.UUID;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.transitum.sources.bundles.BundleManifest.BundledFile;
import org.transitum.sources.bundles.BundleManifest.BundledServer;

/**
 * Writes a bundle beside its final name and renames it when it is whole, so that a bundle that is
 * there is a whole one.
 */
public final class BundleWriter implements AutoCloseable {
  /** Writes a file's content. */
  public interface Content {
    void writeTo(OutputStream out) throws IOException;
  }

  private final Path target;
  private final Path part;
  private final ZipOutputStream zip;
  private final List<BundledFile> files = new ArrayList<>();

  public BundleWriter(Path target) throws IOException {
    this.target = target;
    this.part = target.resolveSibling(target.getFileName() + ".part");
    this.zip = new ZipOutputStream(Files.newOutputStream(part), StandardCharsets.UTF_8);
  }

  /**
   * @param folder {@code readings} or {@code counters}
   * @param name of the file; what may not stand in a path is replaced
   * @return the path in the bundle
   */
  public String add(String folder, String name, Content content) throws IOException {
    String path = folder + "/" + free(folder, name.replaceAll("[^A-Za-z0-9._-]", "_"));
    zip.putNextEntry(new ZipEntry(path));
    MessageDigest digest = sha256();
    Counted counted = new Counted(new DigestOutputStream(new Open(zip), digest));
    content.writeTo(counted);
    zip.closeEntry();
    files.add(new BundledFile(path, counted.bytes, HexFormat.of().formatHex(digest.digest())));
    return path;
  }

  private String free(String folder, String name) {
    int dot = name.lastIndexOf('.');
    String candidate = name;
    for (int i = 2; taken(folder + "/" + candidate); i++) {
      candidate = name.substring(0, dot) + "-" + i + name.substring(dot);
    }
    return candidate;
  }

  private boolean taken(String path) {
    return files.stream().anyMatch(file -> file.path().equals(path));
  }

  /** Writes the manifest and gives the bundle its name. */
  public BundleManifest finish(
      UUID id, String site, Instant madeAt, Instant from, Instant to, List<BundledServer> servers)
      throws IOException {
    BundleManifest manifest =
        new BundleManifest(id, site, madeAt, from, to, List.copyOf(servers), List.copyOf(files));
    zip.putNextEntry(new ZipEntry(BundleManifest.NAME));
    zip.write(manifest.write());
    zip.closeEntry();
    zip.close();
    Files.move(part, target, StandardCopyOption.REPLACE_EXISTING);
    return manifest;
  }

  /** Removes what was begun, unless it was finished. */
  @Override
  public void close() throws IOException {
    if (Files.exists(part)) {
      zip.close();
      Files.deleteIfExists(part);
    }
  }

  static MessageDigest sha256() {
    try {
      return MessageDigest.getInstance("SHA-256");
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e);
    }
  }

  /** Copies a stream into a content. */
  public static Content of(InputStream in) {
    return in::transferTo;
  }

  /** Keeps the archive open when a writer closes its entry. */
  private static final class Open extends java.io.FilterOutputStream {
    Open(OutputStream out) {
      super(out);
    }

    @Override
    public void write(byte[] bytes, int from, int length) throws IOException {
      out.write(bytes, from, length);
    }

    @Override
    public void close() throws IOException {
      flush();
    }
  }

  private static final class Counted extends java.io.FilterOutputStream {
    private long bytes;

    Counted(OutputStream out) {
      super(out);
    }

    @Override
    public void write(int b) throws IOException {
      out.write(b);
      bytes++;
    }

    @Override
    public void write(byte[] more, int from, int length) throws IOException {
      out.write(more, from, length);
      bytes += length;
    }
  }
}
