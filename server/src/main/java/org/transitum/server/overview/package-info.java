/** Where the whole estate stands, now and earlier. */
package org.transitum.server.overview;
