package org.transitum.server.inventory;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.transitum.core.inventory.ObjectId;

/**
 * What accepting a reading did beside bringing its facts, so that it can be undone.
 *
 * @param added objects that were new or came back
 * @param gone objects that it declared gone
 * @param told objects that this source told of for the first time
 * @param seen facts that it confirmed, with the time they were seen before
 * @param touched every object whose facts changed
 */
record AcceptanceEffects(
    List<ObjectId> added,
    List<ObjectId> gone,
    List<ObjectId> told,
    List<Seen> seen,
    List<ObjectId> touched) {

  record Seen(long fact, Instant before) {}

  static AcceptanceEffects none() {
    return new AcceptanceEffects(
        new ArrayList<>(),
        new ArrayList<>(),
        new ArrayList<>(),
        new ArrayList<>(),
        new ArrayList<>());
  }
}
