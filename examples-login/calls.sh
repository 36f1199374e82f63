#!/bin/sh
# Signs in like a browser: at the desk, then at the provider, which is not captured.
set -e
cookies=target/cookies
rm -f $cookies
# Prints where a page redirects to.
visit() {
  curl -sS --max-time 30 --cookie $cookies --cookie-jar $cookies -o target/page \
    --write-out '%{redirect_url}' "$@"
}
at_provider() {
  visit --insecure --connect-to id.example:443:127.0.0.1:9141 "$1"
}
login=$(visit "$CAPTURE_URL/desk")
callback=$(at_provider "$(visit "$login")")
# It leads to the desk itself; the call has to be captured as well.
desk=$(visit "$(echo "$callback" | sed "s|http://localhost:8149|$CAPTURE_URL|")")
visit "$desk"
cat target/page
