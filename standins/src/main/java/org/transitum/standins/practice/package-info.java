/** A real PostgreSQL to practise on. */
@NullMarked
package org.transitum.standins.practice;

import org.jspecify.annotations.NullMarked;
