// SPDX-License-Identifier: Apache-2.0
package dev.cachette.identity;

import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.cachette.Cachette;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.pac4j.core.context.CallContext;
import org.pac4j.core.context.WebContext;
import org.pac4j.core.context.session.SessionStore;
import org.pac4j.core.credentials.Credentials;
import org.pac4j.core.exception.TechnicalException;
import org.pac4j.core.exception.http.WithLocationAction;
import org.pac4j.oidc.client.OidcClient;
import org.pac4j.oidc.config.OidcConfiguration;

/** pac4j signs in, as the security of many frameworks uses it. */
class Pac4jLoginTest {

  private final Cachette net = Cachette.open();
  private final TestClient browser = new TestClient();

  @AfterEach
  void nothingWasWrong() {
    net.close();
  }

  @Test
  void pac4j() throws Exception {
    IdentityProvider id = IdentityProvider.open(net, TestClient.ISSUER);
    id.user("mara").claim("email", "mara@marrow-bay.example");
    id.client("harbour-desk").secret("s3cret-of-the-desk");
    OidcConfiguration configuration = new OidcConfiguration();
    configuration.setClientId("harbour-desk");
    configuration.setSecret("s3cret-of-the-desk");
    configuration.setDiscoveryURI(TestClient.ISSUER + "/.well-known/openid-configuration");
    configuration.setScope("openid email");
    configuration.setUseNonce(true);
    OidcClient client = new OidcClient(configuration);
    client.setCallbackUrl(TestClient.REDIRECT);
    client.init();
    LoginTable.assertRow("pac4j 6.1", id, () -> signsIn(client));
  }

  private boolean signsIn(OidcClient client) throws Exception {
    Map<String, Object> session = new HashMap<>();
    SessionStore store = mock();
    when(store.getSessionId(any(), org.mockito.ArgumentMatchers.anyBoolean()))
        .thenReturn(Optional.of("a session"));
    when(store.get(any(), anyString()))
        .thenAnswer(call -> Optional.ofNullable(session.get((String) call.getArgument(1))));
    org.mockito.Mockito.doAnswer(call -> session.put(call.getArgument(1), call.getArgument(2)))
        .when(store)
        .set(any(), anyString(), any());
    CallContext begin = new CallContext(request(Map.of()), store);
    String url =
        ((WithLocationAction) client.getRedirectionAction(begin).orElseThrow()).getLocation();
    Map<String, String> back = TestClient.redirected(browser.get(url, Map.of()));
    CallContext end = new CallContext(request(back), store);
    try {
      Credentials credentials = client.getCredentials(end).orElseThrow();
      Credentials valid = client.validateCredentials(end, credentials).orElseThrow();
      return client.getUserProfile(end, valid).isPresent();
    } catch (TechnicalException refused) {
      return false;
    }
  }

  private static WebContext request(Map<String, String> parameters) {
    WebContext request = mock();
    Map<String, String[]> all = new HashMap<>();
    parameters.forEach((name, value) -> all.put(name, new String[] {value}));
    when(request.getRequestParameters()).thenReturn(all);
    when(request.getRequestParameter(anyString()))
        .thenAnswer(call -> Optional.ofNullable(parameters.get((String) call.getArgument(0))));
    when(request.getFullRequestURL()).thenReturn(TestClient.REDIRECT);
    when(request.getRequestMethod()).thenReturn("GET");
    when(request.getRequestHeader(anyString())).thenReturn(Optional.empty());
    when(request.getRequestAttribute(anyString())).thenReturn(Optional.empty());
    return request;
  }
}
