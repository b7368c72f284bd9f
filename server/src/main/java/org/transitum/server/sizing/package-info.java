/** Fits of the estate and of one database. */
package org.transitum.server.sizing;
