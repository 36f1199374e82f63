#!/bin/sh
# Plans an arrival, looks at it, and cancels it: the steps of one case.
set -e
call() {
  curl -sS --max-time 30 "$@"
}
call -X DELETE "$CAPTURE_URL/arrivals"
id=$(call -X POST "$CAPTURE_URL/arrivals?vessel=Gull" | sed 's/.*"id":"\([^"]*\)".*/\1/')
call "$CAPTURE_URL/arrivals"
call "$CAPTURE_URL/arrivals/$id"
call -X DELETE "$CAPTURE_URL/arrivals/$id"
call "$CAPTURE_URL/arrivals/$id"
