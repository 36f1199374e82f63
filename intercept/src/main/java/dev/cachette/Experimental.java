// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import java.lang.annotation.Documented;
import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/**
 * Marks API that may change in a minor version, without being deprecated first: it is new, and
 * waits for its users. In a package, it holds for all its types. Everything else that is public,
 * outside of {@code dev.cachette.internal}, follows Semantic Versioning.
 */
@Documented
@Retention(RetentionPolicy.CLASS)
@Target({ElementType.PACKAGE, ElementType.TYPE, ElementType.METHOD})
public @interface Experimental {}
