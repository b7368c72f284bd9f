/** How HTTP is served: security, pages, API description. */
package org.transitum.server.web;
