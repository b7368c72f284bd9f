package org.transitum.server.inventory;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.transitum.core.inventory.ObjectKind;

/**
 * All objects of a kind, column by column, so that ten thousand of them stay small on the way.
 *
 * @param keys of the objects, ascending
 * @param unknown what a move cannot be planned without and nobody has told, by key
 * @param contradicted attributes of which sources disagree, by key
 * @param stale attributes that no source has told lately, by key
 */
public record InventoryTable(
    ObjectKind kind,
    List<String> keys,
    List<Column> columns,
    Map<String, List<String>> unknown,
    Map<String, List<String>> contradicted,
    Map<String, List<String>> stale) {

  /**
   * @param of the kind of object that the column describes; differs from the table's where the
   *     value is that of the instance or host that the object is on
   * @param choices that the attribute accepts; empty where it is free
   * @param values one per key, canonical; null where unknown
   */
  public record Column(
      String name,
      String label,
      String type,
      ObjectKind of,
      List<String> choices,
      List<@Nullable String> values) {}
}
