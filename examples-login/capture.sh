#!/bin/sh
# Captures the case in src/test/cases: a user signs in at the desk, and sees their bookings.
set -e
cd "$(dirname "$0")"
cachette=../cachette
mvn -B -q compile dependency:build-classpath -DincludeScope=runtime -Dmdep.outputFile=target/classpath > /dev/null
$cachette --version > /dev/null # Builds it, if necessary.
$cachette serve --identity https://id.example/realms/harbour --user mara --port 9141 &
provider=$!
$cachette serve src/test/services/berths.stubs.yaml --port 9142 --for https://berths.example &
berths=$!
trap 'kill $provider $berths' EXIT
registration=--spring.security.oauth2.client.registration.harbour
$cachette capture --to src/test/cases --app http://localhost:8149 --session 'sign in' \
  --at https://id.example=http://127.0.0.1:9141 \
  --at https://berths.example=http://127.0.0.1:9142 --calls 'sh calls.sh' \
  -- java -Dserver.port=8149 -cp "target/classes:$(cat target/classpath)" \
  dev.cachette.examples.login.DeskApplication \
  $registration.client-id=harbour-desk $registration.client-secret=secret-of-the-desk \
  $registration.scope=openid,profile,email \
  --spring.security.oauth2.client.provider.harbour.issuer-uri=https://id.example/realms/harbour \
  --spring.security.oauth2.resourceserver.jwt.issuer-uri=https://id.example/realms/harbour
