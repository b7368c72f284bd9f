/** Ties between databases, and the move groups they make. */
@NullMarked
package org.transitum.core.dependencies;

import org.jspecify.annotations.NullMarked;
