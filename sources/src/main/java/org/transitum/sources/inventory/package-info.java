/** Reads the inventory from CSV files and from live servers. */
@NullMarked
package org.transitum.sources.inventory;

import org.jspecify.annotations.NullMarked;
