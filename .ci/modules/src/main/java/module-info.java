/** A program that requires each jar of Cachette. */
module harbour {
  requires java.net.http;
  requires dev.cachette;
  requires dev.cachette.junit;
  requires dev.cachette.testng;
  requires dev.cachette.contract;
  requires dev.cachette.cases;
  requires dev.cachette.identity;
  requires dev.cachette.sweep;
  requires dev.cachette.report;
  requires dev.cachette.control;
  requires dev.cachette.tooling;
}
