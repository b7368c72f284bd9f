/** The collector: reads and samples servers that Transitum itself cannot reach. */
@NullMarked
package org.transitum.collector;

import org.jspecify.annotations.NullMarked;
