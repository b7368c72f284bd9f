/** Simulated servers, for the demo and the tests where the real ones do not run. */
@NullMarked
package org.transitum.standins;

import org.jspecify.annotations.NullMarked;
