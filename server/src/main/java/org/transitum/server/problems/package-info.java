/** Errors as people meet them: what happened, where and what to do, as RFC 9457 problem details. */
package org.transitum.server.problems;
