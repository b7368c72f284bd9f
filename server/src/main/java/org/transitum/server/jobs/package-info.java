/** Long work with progress, cancel and result. */
package org.transitum.server.jobs;
