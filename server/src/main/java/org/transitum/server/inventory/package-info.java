/** The estate, its readings and its live servers. */
package org.transitum.server.inventory;
