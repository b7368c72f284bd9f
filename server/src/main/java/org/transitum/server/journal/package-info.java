/** The append-only record of who did what, when, from what to what. */
package org.transitum.server.journal;
