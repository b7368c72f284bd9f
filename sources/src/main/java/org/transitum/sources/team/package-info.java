/** Reads the people of a programme from CSV files. */
@NullMarked
package org.transitum.sources.team;

import org.jspecify.annotations.NullMarked;
