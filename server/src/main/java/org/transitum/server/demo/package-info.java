/** Fills an empty server with the demo estate. */
package org.transitum.server.demo;
