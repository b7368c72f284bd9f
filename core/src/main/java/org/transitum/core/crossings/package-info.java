/** One run of a database along its route: its stages and the moves allowed between them. */
@NullMarked
package org.transitum.core.crossings;

import org.jspecify.annotations.NullMarked;
