/** Encryption of what must never be read from the records alone. */
@NullMarked
package org.transitum.server.secrets;

import org.jspecify.annotations.NullMarked;
