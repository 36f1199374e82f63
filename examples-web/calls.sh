#!/bin/sh
# Calls the harbour desk, for capturing: each call becomes a case.
set -e
call() {
  curl -sS --max-time 30 "$@"
}
call -X POST "$CAPTURE_URL/arrivals?vessel=Kittiwake"
call -X POST "$CAPTURE_URL/arrivals?vessel=Tern&tugs=2"
call -X POST "$CAPTURE_URL/arrivals?vessel=Petrel" # No berth: 503.
call -X POST "$CAPTURE_URL/arrivals?vessel=Skua" # A refused berth: 409.
call -X POST "$CAPTURE_URL/arrivals?vessel=Auk&tugs=9" # Too many tugs: 400.
call "$CAPTURE_URL/arrivals/unknown" # 404.
