/** Ties with their evidence, and move groups. */
package org.transitum.server.dependencies;
