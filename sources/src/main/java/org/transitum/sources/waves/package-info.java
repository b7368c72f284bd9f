/** Reads windows and freezes from CSV files. */
@NullMarked
package org.transitum.sources.waves;

import org.jspecify.annotations.NullMarked;
