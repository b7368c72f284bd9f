/** Windows, freezes, limits, and the planner that places move groups into waves. */
@NullMarked
package org.transitum.core.waves;

import org.jspecify.annotations.NullMarked;
