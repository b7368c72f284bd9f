package org.transitum.sources.counters;

import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.transitum.core.inventory.ObjectKind;

/** Which host or instance of the estate a metrics target is, and which targets are none. */
public final class MetricTargets {

  /** Knows the estate. */
  public interface Finder {
    /**
     * @param kind HOST or INSTANCE
     * @param target as the metrics name it, such as {@code pg-03.example:9187}
     * @return its key; null where it is not known
     */
    @Nullable String find(ObjectKind kind, String target);
  }

  private final Finder finder;
  private final Set<String> unknown = new TreeSet<>();

  public MetricTargets(Finder finder) {
    this.finder = finder;
  }

  /** The object that a series is of; null where its target is not known. */
  @Nullable String object(MetricRule rule, String target, String database) {
    ObjectKind kind = rule.kind() == ObjectKind.HOST ? ObjectKind.HOST : ObjectKind.INSTANCE;
    String key = target.isEmpty() ? null : finder.find(kind, target);
    if (key == null) {
      unknown.add(target.isEmpty() ? "a series without " + rule.target() : target);
      return null;
    }
    if (rule.kind() != ObjectKind.DATABASE) {
      return key;
    }
    // an exporter's series without a database stand for what all of them share
    return database.isEmpty() ? null : key + "/" + database;
  }

  /** Targets that the estate does not know, ascending. */
  public Set<String> unknown() {
    return unknown;
  }
}
