/** How a database crosses, and how long that keeps its application down. */
@NullMarked
package org.transitum.core.routes;

import org.jspecify.annotations.NullMarked;
