/** Waves, placements and plans. */
package org.transitum.server.waves;
