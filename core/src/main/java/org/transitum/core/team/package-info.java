/** The people and what each role may do. */
@NullMarked
package org.transitum.core.team;

import org.jspecify.annotations.NullMarked;
