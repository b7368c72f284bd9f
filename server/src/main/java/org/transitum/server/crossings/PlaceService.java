package org.transitum.server.crossings;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.context.annotation.Lazy;
import org.springframework.stereotype.Service;
import org.transitum.core.crossings.Condition;
import org.transitum.core.crossings.Place;
import org.transitum.core.crossings.Stage;
import org.transitum.core.inventory.EstateObject;
import org.transitum.server.crossings.CrossingMapper.CrossingRow;
import org.transitum.server.crossings.CrossingMapper.StateRow;
import org.transitum.server.inventory.EstateStore;
import org.transitum.server.inventory.ReadingService;
import org.transitum.server.waves.Commitments;
import org.transitum.server.waves.WaveService;

/** Each database's place in the programme. */
@Service
public class PlaceService implements Commitments, ReadingService.InUse {
  private final CrossingMapper mapper;
  private final EstateStore estate;
  private final WaveService waves;

  PlaceService(CrossingMapper mapper, EstateStore estate, @Lazy WaveService waves) {
    this.mapper = mapper;
    this.estate = estate;
    this.waves = waves;
  }

  /**
   * @param stage of the open or last crossing; absent where none ever ran
   * @param owner login of who answers for the crossing
   */
  public record PlaceView(
      String database,
      Place place,
      @Nullable String wave,
      @Nullable String crossing,
      @Nullable Stage stage,
      @Nullable Condition condition,
      @Nullable Double progress,
      @Nullable String owner) {}

  /** The wave of each placed database. */
  Map<String, String> waves() {
    return waves.placements();
  }

  public List<PlaceView> places() {
    Map<String, CrossingRow> crossings = latest();
    Map<String, StateRow> states = new HashMap<>();
    mapper.states().forEach(state -> states.put(state.databaseKey(), state));
    Map<String, String> placements = waves.placements();
    return estate.databases().stream()
        .map(EstateObject::key)
        .map(key -> view(key, crossings.get(key), states.get(key), placements.get(key)))
        .toList();
  }

  public PlaceView place(String database) {
    return view(
        database,
        mapper.of(database).stream().findFirst().orElse(null),
        mapper.state(database).orElse(null),
        waves.placements().get(database));
  }

  /** The newest crossing of each database. */
  private Map<String, CrossingRow> latest() {
    Map<String, CrossingRow> latest = new HashMap<>();
    mapper.all().forEach(row -> latest.putIfAbsent(row.databaseKey(), row));
    return latest;
  }

  private PlaceView view(
      String key, @Nullable CrossingRow crossing, @Nullable StateRow state, @Nullable String wave) {
    boolean ended = crossing != null && crossing.condition().ended();
    boolean done = crossing != null && !ended && crossing.stage() == Stage.DONE;
    Place place =
        Place.of(
            waves.inScope(key),
            wave != null,
            state != null && state.preparedAt() != null,
            crossing != null && !ended && !done,
            done,
            state != null && state.settledAt() != null,
            state != null && state.retiredAt() != null);
    return new PlaceView(
        key,
        place,
        wave,
        crossing == null ? null : CrossingService.key(crossing.number()),
        crossing == null ? null : crossing.stage(),
        crossing == null ? null : crossing.condition(),
        crossing == null ? null : crossing.progress(),
        crossing == null ? null : crossing.owner());
  }

  @Override
  public Set<String> databases() {
    Set<String> begun = new HashSet<>();
    mapper.states().stream()
        .filter(state -> state.preparedAt() != null || state.retiredAt() != null)
        .forEach(state -> begun.add(state.databaseKey()));
    mapper.all().stream()
        .filter(row -> !row.condition().ended())
        .forEach(row -> begun.add(row.databaseKey()));
    return begun;
  }
}
