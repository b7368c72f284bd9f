package org.transitum.server.inventory;

import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.EstateObject;
import org.transitum.core.inventory.Fact;
import org.transitum.core.inventory.ObjectId;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.core.inventory.ToldFacts;
import org.transitum.server.inventory.EstateMapper.FactRow;
import org.transitum.server.inventory.EstateMapper.ObjectRow;
import org.transitum.server.inventory.EstateMapper.SourceRow;

/**
 * The estate as it stands, kept in memory; what a committed change touched is read again. A
 * transaction that changed it sees its own changes; everybody else sees them after the commit.
 */
@Component
public class EstateStore {
  /** From this many touched objects on, reading everything is faster than reading each. */
  private static final int MANY = 500;

  private final EstateMapper mapper;
  private final Set<ObjectId> stale = ConcurrentHashMap.newKeySet();
  private volatile @Nullable SortedMap<ObjectId, EstateObject> known;

  EstateStore(EstateMapper mapper) {
    this.mapper = mapper;
  }

  /** Stands for the estate as it is: the same object as long as nothing changes. */
  Object snapshot() {
    return known();
  }

  /** Everything ever told of, gone objects included, by kind and key. */
  public Collection<EstateObject> all() {
    return known().values();
  }

  /** The objects of a kind that are there, by key. */
  public List<EstateObject> present(ObjectKind kind) {
    List<EstateObject> present = new ArrayList<>();
    for (EstateObject object : known().tailMap(new ObjectId(kind, "")).values()) {
      if (object.kind() != kind) {
        break;
      }
      if (!object.gone()) {
        present.add(object);
      }
    }
    return present;
  }

  public Optional<EstateObject> find(ObjectKind kind, String key) {
    return Optional.ofNullable(known().get(new ObjectId(kind, key)));
  }

  public boolean isPresent(ObjectKind kind, String key) {
    return find(kind, key).filter(object -> !object.gone()).isPresent();
  }

  @SuppressWarnings("unchecked")
  private SortedMap<ObjectId, EstateObject> known() {
    Object own = TransactionSynchronizationManager.getResource(this);
    if (own != null) {
      return (SortedMap<ObjectId, EstateObject>) own;
    }
    // in this order: what was touched is forgotten only once it is known
    boolean current = stale.isEmpty();
    SortedMap<ObjectId, EstateObject> now = known;
    return current && now != null ? now : readAgain();
  }

  private synchronized SortedMap<ObjectId, EstateObject> readAgain() {
    SortedMap<ObjectId, EstateObject> now = known;
    if (now == null) {
      now = loadAll();
    } else if (!stale.isEmpty()) {
      now = with(now, stale);
    }
    known = now;
    stale.clear();
    return now;
  }

  private SortedMap<ObjectId, EstateObject> loadAll() {
    return build(mapper.objects(), mapper.sources(), mapper.latestFacts());
  }

  private static SortedMap<ObjectId, EstateObject> build(
      List<ObjectRow> objects, List<SourceRow> sources, List<FactRow> facts) {
    Map<ObjectId, Map<Attribute, List<Fact>>> told = new HashMap<>();
    for (FactRow row : facts) {
      told.computeIfAbsent(
              new ObjectId(row.kind(), row.objectKey()), id -> new EnumMap<>(Attribute.class))
          .computeIfAbsent(row.attribute(), attribute -> new ArrayList<>(1))
          .add(fact(row));
    }
    Map<ObjectId, Set<String>> sourcesOf = new HashMap<>();
    for (SourceRow row : sources) {
      sourcesOf
          .computeIfAbsent(new ObjectId(row.kind(), row.objectKey()), id -> new HashSet<>())
          .add(row.source());
    }
    SortedMap<ObjectId, EstateObject> built = new TreeMap<>();
    for (ObjectRow row : objects) {
      ObjectId id = new ObjectId(row.kind(), row.objectKey());
      Map<Attribute, ToldFacts> of = new EnumMap<>(Attribute.class);
      told.getOrDefault(id, Map.of())
          .forEach((attribute, all) -> of.put(attribute, new ToldFacts(attribute, all)));
      built.put(
          id,
          EstateObject.of(
              row.kind(),
              row.objectKey(),
              of,
              sourcesOf.getOrDefault(id, Set.of()),
              row.goneAt() != null));
    }
    return built;
  }

  static Fact fact(FactRow row) {
    return new Fact(
        row.id(),
        row.factValue(),
        row.origin(),
        row.source(),
        row.place(),
        row.at(),
        row.seenAt(),
        row.pinned());
  }

  /** To be called inside the transaction that changed these objects, after it did. */
  void changed(Collection<ObjectId> touched) {
    boolean first = TransactionSynchronizationManager.getResource(this) == null;
    SortedMap<ObjectId, EstateObject> base = known();
    SortedMap<ObjectId, EstateObject> own = with(base, touched);
    TransactionSynchronizationManager.unbindResourceIfPossible(this);
    TransactionSynchronizationManager.bindResource(this, own);
    TransactionSynchronizationManager.registerSynchronization(
        new TransactionSynchronization() {
          @Override
          public void afterCompletion(int status) {
            if (first) {
              TransactionSynchronizationManager.unbindResourceIfPossible(EstateStore.this);
            }
            settle(first && status == STATUS_COMMITTED ? base : null, own, touched);
          }
        });
  }

  /**
   * After a transaction: what it saw is the estate now, unless others changed it meanwhile; then
   * the objects that it touched are read again.
   *
   * @param base what it started from; null where its view cannot be taken over
   */
  private synchronized void settle(
      @Nullable SortedMap<ObjectId, EstateObject> base,
      SortedMap<ObjectId, EstateObject> own,
      Collection<ObjectId> touched) {
    if (base != null && known == base && stale.isEmpty()) {
      known = own;
    } else {
      stale.addAll(touched);
    }
  }

  private SortedMap<ObjectId, EstateObject> with(
      SortedMap<ObjectId, EstateObject> now, Collection<ObjectId> touched) {
    if (touched.size() >= MANY) {
      return loadAll();
    }
    SortedMap<ObjectId, EstateObject> next = new TreeMap<>(now);
    for (ObjectId id : touched) {
      next.putAll(
          build(
              mapper.object(id.kind(), id.key()),
              mapper.sourcesOf(id.kind(), id.key()),
              mapper.latestFactsOf(id.kind(), id.key())));
    }
    return next;
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

  /** The databases that are there, by key. */
  public List<EstateObject> databases() {
    return present(ObjectKind.DATABASE);
  }
}
