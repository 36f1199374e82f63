// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.internal.engine.HostServices;
import dev.cachette.internal.engine.RealService;
import dev.cachette.internal.engine.Responder;
import dev.cachette.internal.engine.Scopes;
import dev.cachette.internal.tls.AuthorityFile;
import dev.cachette.internal.tls.ServerTls;
import dev.cachette.internal.wire.WireServer;

/**
 * The server of a session, with what decides for it.
 *
 * @param wire the server
 * @param policy which connections it gets, and which of them fail
 * @param tls its certificates
 * @param realService calls real services
 */
record AnsweringServer(
    WireServer wire, ConnectionPolicy policy, ServerTls tls, RealService realService) {

  /** Starts one that answers calls by the stubs of scopes. */
  static AnsweringServer start(Settings settings, Scopes scopes, NamedFiles files) {
    ServicesElsewhere services = new ServicesElsewhere(!settings.interception());
    ConnectionPolicy policy = new ConnectionPolicy(scopes, services::probe, Messages::warn);
    HostServices outside =
        new HostServices(
            settings::mapper, files.resources(), services, Messages::warn, LateCalls::add);
    ServerTls tls =
        new ServerTls(
            settings.certificateAuthority().map(AuthorityFile::new),
            settings.requestClientCertificates());
    WireServer wire =
        new WireServer(
            new Responder(scopes, outside),
            policy,
            tls,
            settings.maxRequestBody(),
            !settings.interception(),
            settings.servingThreads());
    services.calledBy(wire, settings.realServices());
    policy.serveBy(wire);
    return new AnsweringServer(wire, policy, tls, services);
  }
}
