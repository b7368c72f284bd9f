/** Reads ties from CSV files. */
@NullMarked
package org.transitum.sources.dependencies;

import org.jspecify.annotations.NullMarked;
