/** Reads a destination's catalogue. */
@NullMarked
package org.transitum.sources.sizing;

import org.jspecify.annotations.NullMarked;
