/** From aligned series to demand, and from demand to the cheapest tier that fits. */
@NullMarked
package org.transitum.core.sizing;

import org.jspecify.annotations.NullMarked;
