package org.transitum.sources.bundles;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.Collections;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.List;
import java.util.Set;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipFile;
import org.transitum.sources.bundles.BundleManifest.BundledFile;
import org.transitum.sources.files.BadFile;
import org.transitum.sources.files.Problems;

/**
 * A bundle as it came: opened only when every file in it is the one that its manifest lists, byte
 * by byte.
 */
public final class BundleFile implements AutoCloseable {
  private static final int MOST_MANIFEST = 8 << 20;
  private static final int MOST_READING = 64 << 20;
  private static final long MOST_UNPACKED = 64L << 30;
  private static final int BLOCK = 1 << 16;

  private final String name;
  private final ZipFile zip;
  private final BundleManifest manifest;

  private BundleFile(String name, ZipFile zip, BundleManifest manifest) {
    this.name = name;
    this.zip = zip;
    this.manifest = manifest;
  }

  /**
   * @param name how it is called in messages
   * @throws BadFile when it is no bundle, or was altered, with what is wrong
   */
  public static BundleFile open(String name, Path file) {
    ZipFile zip;
    try {
      zip = ZipFile.builder().setPath(file).get();
    } catch (IOException | RuntimeException e) {
      throw BadFile.whole(
          name,
          "This is no whole zip archive, so no bundle, or it was cut off on its way. Carry it again.");
    }
    try {
      BundleManifest manifest = BundleManifest.read(name + ", manifest.json", manifest(name, zip));
      BundleFile bundle = new BundleFile(name, zip, manifest);
      bundle.verify();
      return bundle;
    } catch (IOException e) {
      closeQuietly(zip);
      throw BadFile.whole(name, altered("It does not unpack", e));
    } catch (RuntimeException e) {
      closeQuietly(zip);
      throw e;
    }
  }

  private static String altered(String what, Exception e) {
    return "%s (%s), so it was altered or damaged on its way; nothing of it was stored. Carry it again."
        .formatted(what, e.getMessage());
  }

  private static void closeQuietly(ZipFile zip) {
    try {
      zip.close();
    } catch (IOException e) {
      // it was only read
    }
  }

  private static String manifest(String name, ZipFile zip) throws IOException {
    ZipArchiveEntry entry = zip.getEntry(BundleManifest.NAME);
    if (entry == null) {
      throw BadFile.whole(
          name, "The archive holds no manifest.json, so it is no bundle of a collector.");
    }
    try (InputStream in = checked(zip, entry)) {
      byte[] bytes = in.readNBytes(MOST_MANIFEST + 1);
      if (bytes.length > MOST_MANIFEST) {
        throw BadFile.whole(name, "Its manifest is larger than 8 MiB.");
      }
      return new String(bytes, StandardCharsets.UTF_8);
    }
  }

  /** Compares every file with the manifest, before anything is read of it. */
  private void verify() throws IOException {
    Problems problems = new Problems(name);
    Set<String> listed = new HashSet<>();
    listed.add(BundleManifest.NAME);
    long left = MOST_UNPACKED;
    for (BundledFile file : manifest.files()) {
      listed.add(file.path());
      left -= file.bytes();
      ZipArchiveEntry entry = zip.getEntry(file.path());
      if (entry == null) {
        problems.add(null, file.path(), "The manifest lists it, but it is not there.");
      } else if (left < 0) {
        problems.add(null, file.path(), "The bundle unpacks to more than 64 GiB.");
        break;
      } else if (!matches(entry, file)) {
        problems.add(
            null,
            file.path(),
            "It is not what the manifest lists (%,d bytes, SHA-256 %s…): altered or damaged on its way. Carry the bundle again."
                .formatted(file.bytes(), file.sha256().substring(0, 12)));
      }
    }
    List<ZipArchiveEntry> entries = Collections.list(zip.getEntries());
    for (ZipArchiveEntry entry : entries) {
      if (!listed.contains(entry.getName())) {
        problems.add(null, cut(entry.getName()), "It is in the archive, but not in the manifest.");
      }
    }
    if (entries.size() != listed.size()) {
      problems.add(
          null,
          null,
          "The archive holds %,d files, the manifest %,d."
              .formatted(entries.size(), listed.size()));
    }
    problems.throwIfAny();
  }

  private static String cut(String text) {
    return text.length() > 100 ? text.substring(0, 100) + "…" : text;
  }

  /** Reads no further than the manifest's size, so that nothing unpacks without bound. */
  private boolean matches(ZipArchiveEntry entry, BundledFile file) {
    MessageDigest digest = BundleWriter.sha256();
    byte[] block = new byte[BLOCK];
    long seen = 0;
    try (InputStream in = checked(zip, entry)) {
      for (int n = in.read(block); n >= 0; n = in.read(block)) {
        seen += n;
        if (seen > file.bytes()) {
          return false;
        }
        digest.update(block, 0, n);
      }
    } catch (IOException e) {
      return false;
    }
    return seen == file.bytes() && HexFormat.of().formatHex(digest.digest()).equals(file.sha256());
  }

  private static InputStream checked(ZipFile zip, ZipArchiveEntry entry) throws IOException {
    InputStream in = zip.getInputStream(entry);
    if (in == null) {
      throw new IOException("no content");
    }
    return new org.apache.commons.compress.utils.ChecksumVerifyingInputStream(
        new java.util.zip.CRC32(), in, entry.getSize(), entry.getCrc());
  }

  public BundleManifest manifest() {
    return manifest;
  }

  /** The content of a file of the manifest; for counters, of any length. */
  public InputStream content(String path) throws IOException {
    InputStream in = zip.getInputStream(zip.getEntry(path));
    if (in == null) {
      throw new IOException("no content of " + path);
    }
    return in;
  }

  /** A reading's bytes, which are few enough to be held. */
  public InputStream reading(String path) throws IOException {
    try (InputStream in = content(path)) {
      byte[] bytes = in.readNBytes(MOST_READING + 1);
      if (bytes.length > MOST_READING) {
        throw BadFile.whole(path, "A reading of more than 64 MiB is not read.");
      }
      return new ByteArrayInputStream(bytes);
    }
  }

  @Override
  public void close() throws IOException {
    zip.close();
  }
}
