/** People, roles and sign-in. */
package org.transitum.server.team;
