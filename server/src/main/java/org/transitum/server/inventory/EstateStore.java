package org.transitum.server.inventory;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.EstateObject;
import org.transitum.core.inventory.Fact;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.server.inventory.EstateMapper.FactRow;

/**
 * The estate as it stands, kept in memory and read again after a committed change. A transaction
 * that changed it sees its own changes; everybody else sees them after the commit.
 */
@Component
public class EstateStore {
  private final EstateMapper mapper;
  private volatile @Nullable Map<String, EstateObject> known;

  EstateStore(EstateMapper mapper) {
    this.mapper = mapper;
  }

  /** Everything ever told of, gone objects included, by kind and key. */
  public List<EstateObject> all() {
    return List.copyOf(known().values());
  }

  /** The objects of a kind that are there. */
  public List<EstateObject> present(ObjectKind kind) {
    return known().values().stream()
        .filter(object -> object.kind() == kind && !object.gone())
        .toList();
  }

  public Optional<EstateObject> find(ObjectKind kind, String key) {
    return Optional.ofNullable(known().get(id(kind, key)));
  }

  public boolean isPresent(ObjectKind kind, String key) {
    return find(kind, key).filter(object -> !object.gone()).isPresent();
  }

  @SuppressWarnings("unchecked")
  private Map<String, EstateObject> known() {
    Object own = TransactionSynchronizationManager.getResource(this);
    if (own != null) {
      return (Map<String, EstateObject>) own;
    }
    Map<String, EstateObject> now = known;
    if (now == null) {
      now = load();
      known = now;
    }
    return now;
  }

  private Map<String, EstateObject> load() {
    Map<String, Map<Attribute, Fact>> facts = new HashMap<>();
    for (FactRow row : mapper.countingFacts()) {
      facts
          .computeIfAbsent(id(row.kind(), row.objectKey()), key -> new EnumMap<>(Attribute.class))
          .put(row.attribute(), fact(row));
    }
    Map<String, Set<String>> sources = new HashMap<>();
    mapper
        .sources()
        .forEach(
            row ->
                sources
                    .computeIfAbsent(id(row.kind(), row.objectKey()), key -> new HashSet<>())
                    .add(row.source()));
    Map<String, EstateObject> objects = new LinkedHashMap<>();
    mapper
        .objects()
        .forEach(
            row -> {
              String id = id(row.kind(), row.objectKey());
              objects.put(
                  id,
                  new EstateObject(
                      row.kind(),
                      row.objectKey(),
                      facts.getOrDefault(id, Map.of()),
                      sources.getOrDefault(id, Set.of()),
                      row.goneAt() != null));
            });
    return objects;
  }

  static Fact fact(FactRow row) {
    return new Fact(
        row.factValue(), row.origin(), row.source(), row.place(), row.at(), row.pinned());
  }

  /** To be called inside the transaction that changed the estate, after it did. */
  void changed() {
    TransactionSynchronizationManager.unbindResourceIfPossible(this);
    TransactionSynchronizationManager.bindResource(this, load());
    TransactionSynchronizationManager.registerSynchronization(
        new TransactionSynchronization() {
          @Override
          public void afterCompletion(int status) {
            TransactionSynchronizationManager.unbindResourceIfPossible(EstateStore.this);
            known = null;
          }
        });
  }

  private static String id(ObjectKind kind, String key) {
    return kind + ":" + key;
  }

  /** Values that a database takes over from its application where it has none of its own. */
  public Optional<String> effective(EstateObject database, Attribute attribute) {
    Optional<String> own = database.value(attribute);
    if (own.isPresent()) {
      return own;
    }
    return application(database).flatMap(application -> application.value(attribute));
  }

  public Optional<EstateObject> application(EstateObject database) {
    return database
        .value(Attribute.APPLICATION_NAME)
        .flatMap(name -> find(ObjectKind.APPLICATION, name));
  }

  /** The instance that a database is on. */
  public Optional<EstateObject> instance(EstateObject database) {
    return find(ObjectKind.INSTANCE, database.key().substring(0, database.key().indexOf('/')));
  }

  public Optional<EstateObject> host(EstateObject instance) {
    return instance.value(Attribute.HOST_NAME).flatMap(name -> find(ObjectKind.HOST, name));
  }

  /** Databases that are there, as a mutable list ordered by key. */
  public List<EstateObject> databases() {
    return new ArrayList<>(present(ObjectKind.DATABASE));
  }
}
