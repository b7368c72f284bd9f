/** Bundles that collectors push or people carry. */
@org.jspecify.annotations.NullMarked
package org.transitum.server.bundles;
