/** Live changes to every browser, as server-sent events. */
package org.transitum.server.live;
