package org.transitum.server.waves;

import java.util.Set;

/** Databases that have gone beyond planning, so that no plan moves them; told by the crossings. */
public interface Commitments {
  Set<String> databases();
}
