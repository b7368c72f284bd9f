package org.transitum.server.bundles;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;
import org.transitum.server.bundles.BundleMapper.BundleRow;
import org.transitum.server.bundles.BundleService.BundleServer;
import org.transitum.server.bundles.BundleService.BundleState;
import org.transitum.server.problems.Missing;
import org.transitum.sources.bundles.BundleFile;
import tools.jackson.databind.json.JsonMapper;

/** Bundles in the records, with their archives beside as long as something in them waits. */
@Component
class BundleStore {
  private static final int MOST_NAMED = 200;

  private final BundleMapper mapper;
  private final JsonMapper json;
  private final Path folder;

  BundleStore(BundleMapper mapper, JsonMapper json, @Value("${transitum.data}") Path data) {
    this.mapper = mapper;
    this.json = json;
    this.folder = data.resolve("bundles");
  }

  /**
   * What is kept of a bundle.
   *
   * @param unknown objects that the inventory did not know when its counters were stored
   * @param waitsFor instances whose readings are to be decided before those have a place
   * @param problem why it could not be read
   */
  record Content(
      List<BundleServer> servers,
      List<String> unknown,
      Set<String> waitsFor,
      @Nullable String problem) {

    /** Of a bundle that just came. */
    static Content of(List<BundleServer> servers) {
      return new Content(servers, List.of(), Set.of(), null);
    }

    Content failed(String why) {
      return new Content(servers, List.of(), Set.of(), why);
    }

    Content stored(List<String> unknown, Set<String> waitsFor) {
      return new Content(
          servers, unknown.subList(0, Math.min(MOST_NAMED, unknown.size())), waitsFor, null);
    }
  }

  BundleRow row(long id) {
    return mapper.find(id).orElseThrow(() -> new Missing("There is no bundle %d.".formatted(id)));
  }

  Content content(BundleRow row) {
    return json.readValue(row.payload(), Content.class);
  }

  String written(Content content) {
    return json.writeValueAsString(content);
  }

  void save(BundleRow row, BundleState state, long samples, Content content) {
    mapper.save(row.id(), state, samples, written(content));
  }

  private Path file(String uid) {
    return folder.resolve(uid + ".zip");
  }

  /** Takes an archive over. */
  void keep(Path archive, String uid) throws IOException {
    Files.createDirectories(folder);
    Files.move(archive, file(uid), StandardCopyOption.REPLACE_EXISTING);
  }

  BundleFile open(BundleRow row) {
    return BundleFile.open(row.name(), file(row.uid()));
  }

  void drop(BundleRow row) throws IOException {
    Files.deleteIfExists(file(row.uid()));
  }
}
