/** Imports, samples and stores series. */
package org.transitum.server.counters;
