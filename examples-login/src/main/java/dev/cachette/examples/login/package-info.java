/** The harbour desk, to which users sign in, and which calls the berths with their tokens. */
package dev.cachette.examples.login;
