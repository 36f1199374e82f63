#!/bin/sh
# Captures the cases in src/test/cases: starts the services, and the harbour desk by the tool.
set -e
cd "$(dirname "$0")"
cachette=../cachette
mvn -B -q compile dependency:build-classpath -DincludeScope=runtime -Dmdep.outputFile=target/classpath > /dev/null
$cachette --version > /dev/null # Builds it, if necessary.
$cachette serve src/test/services/tides.stubs.yaml --port 9131 --for https://tides.example &
tides=$!
$cachette serve src/test/services/berths.stubs.yaml --port 9132 --for https://berths.example &
berths=$!
trap 'kill $tides $berths' EXIT
capture() {
  $cachette capture --to src/test/cases --app http://localhost:8139 \
    --at https://tides.example=http://127.0.0.1:9131 \
    --at https://berths.example=http://127.0.0.1:9132 "$@" \
    -- java -Dserver.port=8139 -cp "target/classes:$(cat target/classpath)" \
    dev.cachette.examples.web.HarbourApplication
}
capture --calls 'sh calls.sh'
capture --calls 'sh visit.sh' --session 'an arrival and its end'
