/** The one programme of this server and its settings. */
package org.transitum.server.programme;
