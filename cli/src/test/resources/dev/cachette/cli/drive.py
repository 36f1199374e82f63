"""A test in Python that uses the control port: two sessions at once."""

import json
import sys
import urllib.error
import urllib.request

control, token = sys.argv[1], sys.argv[2]
direct = urllib.request.build_opener(urllib.request.ProxyHandler({}))


def call(method, url, body=None, opener=direct, **headers):
    data = None if body is None else body.encode()
    request = urllib.request.Request(url, data, headers, method=method)
    try:
        with opener.open(request, timeout=20) as response:
            return response.status, response.read().decode()
    except urllib.error.HTTPError as refused:
        return refused.code, refused.read().decode()


def controlled(method, path, body=None, **headers):
    status, text = call(method, control + path, body, authorization="Bearer " + token, **headers)
    return status, json.loads(text) if text.startswith("{") else text


def expect(expected, actual):
    if expected != actual:
        raise SystemExit(f"expected {expected!r}, but was {actual!r}")


sessions = [controlled("POST", "/sessions")[1] for _ in range(2)]
for number, session in enumerate(sessions):
    stubs = f"/sessions/{session['id']}/stubs"
    status, added = controlled(
        "POST", stubs, f"stubs: {{ request: GET /v1/pilots, answer: {{ json: [{number}] }} }}"
    )
    expect(201, status)
    expect((200, f"[{number}]"), call("GET", session["baseUrl"] + "/v1/pilots"))
    proxied = urllib.request.build_opener(urllib.request.ProxyHandler({"http": session["proxy"]}))
    expect((200, f"[{number}]"), call("GET", "http://berths.example/v1/pilots", opener=proxied))
    expect(200, controlled("GET", f"{stubs}/{added['id']}")[0])
    status, replaced = controlled(
        "PUT", f"{stubs}/{added['id']}", "stubs: { request: GET /v1/pilots, answer: 204 }"
    )
    expect((200, 0), (status, replaced["stubs"][0]["calls"]))
    expect((204, ""), call("GET", session["baseUrl"] + "/v1/pilots"))

first, second = (f"/sessions/{session['id']}" for session in sessions)
expect({"count": 3, "met": True}, controlled("GET", first + "/calls/count?atLeast=3")[1])
call("POST", sessions[0]["baseUrl"] + "/v1/other", '{"draught": 4}')
unexpected = controlled("GET", first + "/calls?unexpected=true")[1]["calls"]
expect(1, len(unexpected))
expect({"draught": 4}, json.loads(unexpected[0]["body"]))
expect(True, unexpected[0]["durationMillis"] >= 0)
expect(0, controlled("GET", second + "/calls?unexpected=true")[1]["count"])
expect(False, controlled("GET", first + "/verdict")[1]["passed"])
expect(True, controlled("GET", second + "/verdict")[1]["passed"])
expect(204, controlled("DELETE", first + "/calls")[0])
expect(True, controlled("GET", first + "/verdict")[1]["passed"])
expect(0, controlled("GET", first + "/calls")[1]["count"])
expect(False, controlled("POST", second + "/stubs", "stubs: { request: GET /a, answer: 200 }")[0] != 201)
verdict = controlled("DELETE", second)[1]
expect((False, 1), (verdict["passed"], len(verdict["unusedStubs"])))
expect(404, controlled("GET", second + "/calls")[0])
expect(200, controlled("DELETE", first)[0])
expect(0, controlled("GET", "/calls")[1]["count"])
print("passed")
