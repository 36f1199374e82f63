/** The harbour desk as a small web application, as a servlet and as a command. */
package dev.cachette.examples.web;
