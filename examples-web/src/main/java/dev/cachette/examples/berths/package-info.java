/** The berth service, a provider of the harbour desk, as a web application. */
package dev.cachette.examples.berths;
