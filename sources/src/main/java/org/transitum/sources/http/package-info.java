/** Bounded exchanges over HTTP. */
@org.jspecify.annotations.NullMarked
package org.transitum.sources.http;
