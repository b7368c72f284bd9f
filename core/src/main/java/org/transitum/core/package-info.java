/** The domain and every calculation; pure Java without framework, I/O or clock. */
@NullMarked
package org.transitum.core;

import org.jspecify.annotations.NullMarked;
