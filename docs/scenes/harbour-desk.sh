# The harbour desk of the web example, with its services, for capturing and replaying. To be sourced in the root of the
# checkout; sets `folder`, `desk` (the command that starts it) and `at` (where its services are).
folder=$(mktemp -d)
served=()
trap 'kill "${served[@]}" 2> /dev/null; wait; rm -rf "$folder"' EXIT
if [ ! -s examples-web/target/classpath ]; then
  (cd examples-web && mvn -B -q compile dependency:build-classpath -DincludeScope=runtime -Dmdep.outputFile=target/classpath)
fi
desk=(java -Dserver.port=8139 -cp "examples-web/target/classes:$(cat examples-web/target/classpath)"
  dev.cachette.examples.web.HarbourApplication)
at=(--at https://tides.example=http://127.0.0.1:9131 --at https://berths.example=http://127.0.0.1:9132)
# serve NAME PORT
serve() {
  ./cachette serve "examples-web/src/test/services/$1.stubs.yaml" --port "$2" --for "https://$1.example" \
    --ca "$folder/authority.pem" > /dev/null 2> "$folder/$1" &
  served+=($!)
  until grep -qs serving "$folder/$1"; do :; done
}
