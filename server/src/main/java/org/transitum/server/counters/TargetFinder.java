package org.transitum.server.counters;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.EstateObject;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.server.inventory.EstateStore;
import org.transitum.sources.counters.MetricTargets;

/**
 * Finds the host or instance behind a metrics target: as somebody listed it, else by its name
 * without port and domain; an instance also as the only one on a host of that name.
 */
final class TargetFinder implements MetricTargets.Finder {
  private final EstateStore estate;
  private final Map<String, String> listed;

  TargetFinder(EstateStore estate, Map<String, String> listed) {
    this.estate = estate;
    this.listed = listed;
  }

  @Override
  public @Nullable String find(ObjectKind kind, String target) {
    String name = target.replaceFirst(":\\d+$", "");
    for (String candidate : new String[] {listed.get(target), listed.get(name), name}) {
      if (candidate != null && estate.isPresent(kind, candidate)) {
        return candidate;
      }
    }
    List<String> hosts =
        estate.present(ObjectKind.HOST).stream()
            .map(EstateObject::key)
            .filter(host -> alike(host, name))
            .toList();
    if (kind == ObjectKind.HOST) {
      return hosts.size() == 1 ? hosts.get(0) : null;
    }
    List<String> instances =
        estate.present(ObjectKind.INSTANCE).stream()
            .filter(i -> i.value(Attribute.HOST_NAME).filter(hosts::contains).isPresent())
            .map(EstateObject::key)
            .toList();
    return instances.size() == 1 ? instances.get(0) : null;
  }

  private static boolean alike(String one, String other) {
    return one.equalsIgnoreCase(other) || first(one).equalsIgnoreCase(first(other));
  }

  /** A name without its domain; an address as it is. */
  private static String first(String name) {
    return name.matches("[\\d.]+") ? name : name.replaceFirst("\\..*$", "");
  }
}
