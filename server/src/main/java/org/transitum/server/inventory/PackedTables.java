package org.transitum.server.inventory;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.time.Instant;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import org.transitum.core.inventory.ObjectKind;
import tools.jackson.databind.json.JsonMapper;

/**
 * The tables as JSON, packed once for everybody and kept until something in them changes: building
 * and packing ten thousand rows takes longer than everything else that a browser waits for.
 */
@Component
class PackedTables {
  private final InventoryService inventory;
  private final EstateStore estate;
  private final JsonMapper json;
  private final Map<ObjectKind, Packed> packed = new ConcurrentHashMap<>();

  PackedTables(InventoryService inventory, EstateStore estate, JsonMapper json) {
    this.inventory = inventory;
    this.estate = estate;
    this.json = json;
  }

  /**
   * @param estate the estate that it shows, by identity
   * @param staleLimit before which a fact was stale in it
   */
  @SuppressWarnings("ArrayRecordComponent")
  private record Packed(Object estate, Instant staleLimit, byte[] gzip) {
    @SuppressWarnings("ReferenceEquality")
    boolean shows(Object now, Instant limit) {
      return estate == now && staleLimit.equals(limit);
    }
  }

  /** The first to come after a start need not wait until the estate is loaded. */
  @EventListener(ApplicationReadyEvent.class)
  void warm() {
    var unused = CompletableFuture.runAsync(() -> gzip(ObjectKind.DATABASE));
  }

  /** A table's JSON, packed with gzip. */
  byte[] gzip(ObjectKind kind) {
    Object now = estate.snapshot();
    Instant limit = inventory.staleLimit();
    return packed
        .compute(
            kind,
            (k, before) ->
                before != null && before.shows(now, limit)
                    ? before
                    : new Packed(now, limit, pack(kind)))
        .gzip();
  }

  /** A table's JSON for who cannot unpack it. */
  byte[] plain(ObjectKind kind) {
    try (GZIPInputStream in = new GZIPInputStream(new ByteArrayInputStream(gzip(kind)))) {
      return in.readAllBytes();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private byte[] pack(ObjectKind kind) {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (OutputStream out = new GZIPOutputStream(bytes)) {
      json.writeValue(out, inventory.table(kind));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return bytes.toByteArray();
  }
}
