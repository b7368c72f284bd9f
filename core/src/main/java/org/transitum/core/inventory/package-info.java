/**
 * The estate: its objects, their facts with provenance, and the difference a new reading would
 * make.
 */
@NullMarked
package org.transitum.core.inventory;

import org.jspecify.annotations.NullMarked;
