/** What all readers of files share: limits, encodings, tables, and problems with their place. */
@NullMarked
package org.transitum.sources.files;

import org.jspecify.annotations.NullMarked;
