/** Bundles of readings and counters that a collector leaves (docs/formats/bundle.md). */
@NullMarked
package org.transitum.sources.bundles;

import org.jspecify.annotations.NullMarked;
