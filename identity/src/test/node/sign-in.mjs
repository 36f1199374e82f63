// Signs in like a server: reads the metadata, follows the redirect, redeems the code.
import * as client from 'openid-client';

const [issuer, redirect] = process.argv.slice(2);
try {
  const config = await client.discovery(
    new URL(issuer),
    'harbour-desk',
    undefined,
    client.ClientSecretBasic('s3cret-of-the-desk'),
    { execute: [client.allowInsecureRequests, client.enableNonRepudiationChecks] },
  );
  const verifier = client.randomPKCECodeVerifier();
  const state = client.randomState();
  const nonce = client.randomNonce();
  const url = client.buildAuthorizationUrl(config, {
    redirect_uri: redirect,
    scope: 'openid email',
    code_challenge: await client.calculatePKCECodeChallenge(verifier),
    code_challenge_method: 'S256',
    state,
    nonce,
  });
  const response = await fetch(url, { redirect: 'manual' });
  const tokens = await client.authorizationCodeGrant(
    config,
    new URL(response.headers.get('location')),
    { pkceCodeVerifier: verifier, expectedState: state, expectedNonce: nonce },
  );
  console.log(`signed in as ${tokens.claims().sub}`);
} catch (refused) {
  console.log(`refused: ${refused.message}: ${refused.cause?.message ?? ''}`);
}
