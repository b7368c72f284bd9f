/** Crossings, and each database's place in the programme. */
package org.transitum.server.crossings;
