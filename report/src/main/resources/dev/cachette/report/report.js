"use strict";
// Elements are made from text, never from markup: what callers sent stays text.

const run = JSON.parse(document.getElementById("run").textContent);
const MOST_AT_ONCE = 200;
let showTest = () => {};

function make(name, attributes = {}, ...children) {
  return fill(document.createElement(name), attributes, children);
}

function draw(name, attributes = {}, ...children) {
  return fill(document.createElementNS("http://www.w3.org/2000/svg", name), attributes, children);
}

function fill(element, attributes, children) {
  for (const [key, value] of Object.entries(attributes)) {
    if (key.startsWith("on")) {
      element.addEventListener(key.slice(2), value);
    } else if (value === true) {
      element.setAttribute(key, "");
    } else if (value !== false && value != null) {
      element.setAttribute(key, value);
    }
  }
  element.append(...children.flat(Infinity).filter(child => child != null));
  return element;
}

function took(millis) {
  return millis == null ? "" : millis < 10 ? `${millis.toFixed(1)} ms`
    : millis < 1000 ? `${Math.round(millis)} ms`
    : millis < 600000 ? `${(millis / 1000).toFixed(1)} s` : `${Math.round(millis / 60000)} min`;
}

function bytes(count) {
  return count < 1024 ? `${count} B` : count < 1048576 ? `${(count / 1024).toFixed(1)} KiB`
    : `${(count / 1048576).toFixed(1)} MiB`;
}

function counted(number, what) {
  return `${number.toLocaleString("en")} ${what}${number === 1 ? "" : "s"}`;
}

function moment(instant) {
  const at = new Date(instant);
  const two = number => String(number).padStart(2, "0");
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())} `
    + `${two(at.getHours())}:${two(at.getMinutes())}:${two(at.getSeconds())}`;
}

function section(id, title, ...content) {
  return make("section", { id, "aria-labelledby": `${id}-title` },
    make("h2", { id: `${id}-title` }, title), ...content);
}

function table(caption, head, rows, name) {
  const numeric = title => ["calls", "times", "exchanges", "replayed", "recorded", "tests"].includes(title) ? "number" : null;
  return make("div", { class: "wide", tabindex: "0", role: "region", "aria-label": caption }, make("table", { class: name },
    make("caption", {}, caption),
    make("thead", {}, make("tr", {}, head.map(title => make("th", { scope: "col", class: numeric(title) }, title)))),
    make("tbody", {}, rows.map(row => make("tr", {}, row.map((cell, at) => {
      const content = cell instanceof Node || typeof cell === "string" ? cell : String(cell ?? "");
      return at === 0 ? make("th", { scope: "row" }, content)
        : cell instanceof HTMLTableCellElement ? cell : make("td", { class: numeric(head[at]) }, content);
    }))))));
}

// The numbers that a person looks for first.

function overview() {
  const totals = run.totals;
  const stubs = run.stubs;
  const unused = stubs.filter(isUnused).length;
  const neverGiven = stubs.flatMap(neverGivenOf).length;
  const documented = run.descriptions.reduce((sum, it) => sum + it.documented, 0);
  const met = run.descriptions.reduce((sum, it) => sum + it.met, 0);
  const facts = [
    ["Tests", totals.tests.toLocaleString("en"), ""],
    ["Failed", totals.failed, totals.failed > 0 ? "bad" : ""],
    totals.unfinished > 0 ? ["Without an end", totals.unfinished, "bad"] : null,
    ["Calls", totals.calls.toLocaleString("en"), ""],
    ["Unexpected calls", totals.unexpected, totals.unexpected > 0 ? "bad" : ""],
    ["Stubs never used", unused, unused > 0 ? "note" : ""],
    ["Answers never given", neverGiven, neverGiven > 0 ? "note" : ""],
    documented > 0 ? ["Documented responses met", `${met} of ${documented}`, met < documented ? "note" : ""] : null,
    ["Waited for answers", took(totals.waitingMillis), ""],
  ];
  const jvms = run.jvms.length === 1 ? `1 JVM, Java ${run.jvms[0].java}` : `${run.jvms.length} JVMs`;
  const crashed = run.jvms.filter(jvm => jvm.endedAt == null).length;
  return section("overview", "Overview",
    make("dl", { class: "facts" }, facts.filter(it => it != null).map(([name, value, kind]) =>
      make("div", { class: kind || null }, make("dt", {}, name), make("dd", {}, String(value))))),
    make("p", { class: "faint" }, `From ${moment(totals.startedAt)}, for ${took(totals.durationMillis)}, in ${jvms}.`),
    crashed > 0 ? make("p", { class: "problem" }, `${counted(crashed, "JVM")} did not end in order: `
      + "it crashed, was killed, or still runs. What it had written is here.") : null);
}

// Tests, with their calls on a time line.

function tests() {
  const list = make("div", { id: "tests-list" });
  const said = make("p", { class: "faint", role: "status" });
  const text = make("input", { type: "search", "aria-label": "Show tests with this text in name, URL or stub",
    placeholder: "a test, a URL, a stub" });
  const which = make("select", { "aria-label": "Which tests" },
    ["all tests", "failed tests", "tests with unexpected calls", "tests with repeated calls"]
      .map(it => make("option", {}, it)));
  // Those that failed come first.
  const inOrder = [...run.tests].sort((one, other) => (one.outcome === "passed") - (other.outcome === "passed"));
  let limit = MOST_AT_ONCE;
  const show = () => {
    const wanted = text.value.trim().toLowerCase();
    const chosen = inOrder.filter(test => isOf(test, which.selectedIndex) && isAbout(test, wanted));
    list.replaceChildren(...chosen.slice(0, limit).map(testOf));
    if (chosen.length > limit) {
      list.append(make("button", { type: "button", onclick: () => { limit += MOST_AT_ONCE; show(); } },
        `Show ${Math.min(MOST_AT_ONCE, chosen.length - limit)} more`));
    }
    said.textContent = `${counted(chosen.length, "test")} of ${run.tests.length.toLocaleString("en")}`
      + (run.testsNotShown ? `; ${run.testsNotShown} more are in run.json` : "");
  };
  text.addEventListener("input", () => { limit = MOST_AT_ONCE; show(); });
  which.addEventListener("change", () => { limit = MOST_AT_ONCE; show(); });
  show();
  showTest = name => {
    text.value = name;
    which.selectedIndex = 0;
    show();
    const first = list.querySelector("details");
    if (first != null) {
      first.open = true;
      first.querySelector("summary").focus();
    }
  };
  return section("tests", "Tests", make("div", { class: "tools" }, text, which, said), legend(),
    make("div", { class: "columns", "aria-hidden": "true" }, make("span"), make("span", {}, "outcome"), make("span", {}, "test"),
      make("span", { class: "number" }, "calls"), make("span", { class: "number optional" }, "took"),
      make("span", { class: "optional" }, "waiting for answers")), list);
}

/** A link to a test, which can be sent to a colleague, too. */
function linkTo(name) {
  return make("a", { href: `#test=${encodeURIComponent(name)}` }, name);
}

function follow() {
  const [kind, name] = location.hash.slice(1).split("=");
  if (kind === "test" && name != null) {
    showTest(decodeURIComponent(name));
  }
}

function isOf(test, kind) {
  return kind === 0 || kind === 1 && test.outcome !== "passed"
    || kind === 2 && test.unexpected.length > 0 || kind === 3 && test.calls.some(call => call.repeats != null);
}

function isAbout(test, wanted) {
  return wanted === "" || test.name.toLowerCase().includes(wanted) || test.calls.some(call =>
    `${call.method} ${call.url}`.toLowerCase().includes(wanted) || (call.stub ?? "").toLowerCase().includes(wanted));
}

function legend() {
  const kinds = [["matching", "until the answer was ready"], ["held", "held by a gate"],
    ["delayed", "delayed"], ["sending", "answer being sent"], ["failed", "unexpected, or a fault"]];
  return make("p", { class: "legend" }, kinds.map(([kind, words]) => make("span", {},
    draw("svg", { class: "bar key", viewBox: "0 0 22 10", "aria-hidden": "true" }, draw("rect", { class: kind, width: 22, height: 10 })), words)));
}

function testOf(test) {
  const inside = make("div", { class: "inside" });
  const calls = test.calls.length + (test.callsNotShown ?? 0);
  const details = make("details", { class: `test ${test.outcome}`, ontoggle: () => {
    if (details.open && !inside.hasChildNodes()) {
      fill(inside, {}, insideOf(test));
    }
  } },
    make("summary", {}, make("span", { class: "outcome" }, test.outcome), make("span", { class: "name" }, test.name),
      make("span", { class: "number" }, counted(calls, "call")),
      make("span", { class: "number optional" }, took(test.durationMillis)),
      make("span", { class: "optional" }, share(test.waitingMillis, test.durationMillis))),
    inside);
  return details;
}

/** How much of a time was spent waiting for answers. */
function share(waiting, all) {
  const width = all > 0 ? Math.min(100, 100 * waiting / all) : 0;
  const words = `${took(waiting)} of ${took(all)} waiting for answers`;
  return draw("svg", { class: "share", viewBox: "0 0 100 12", preserveAspectRatio: "none", role: "img", "aria-label": words },
    draw("title", {}, words), draw("rect", { width: Math.max(waiting > 0 ? 0.5 : 0, width), height: 12 }));
}

function insideOf(test) {
  const jvm = run.jvms[test.jvm];
  const end = Math.max(0.001, ...test.calls.map(call => call.startMillis + (call.durationMillis ?? 0)));
  const hidden = (test.callsNotShown ?? 0) + (test.dropped ?? 0);
  return [
    test.failure ? make("pre", { class: "problem" }, test.failure) : null,
    test.outcome === "unfinished" ? make("p", { class: "problem" }, "It has no end: its JVM ended in the middle of it.") : null,
    make("p", { class: "faint" }, `Began ${moment(test.startedAt)}, took ${took(test.durationMillis)}, of which `
      + `${took(test.waitingMillis)} waiting for answers`, run.jvms.length > 1 ? `; in process ${jvm.process}, ${jvm.folder}` : "", "."),
    test.attempts.length > 0 ? table("Connections that did not become calls", ["service", "outcome", "times"],
      test.attempts.map(it => [it.service, it.outcome, it.times])) : null,
    test.calls.length === 0 ? make("p", { class: "faint" }, "It made no calls.") : make("div", { class: "line" },
      make("div", { class: "scale", "aria-hidden": "true" }, make("span"), make("span"), make("span", {}, "call"), make("span", {}, "answer"),
        make("span", { class: "number" }, "took"),
        make("span", { class: "ticks" }, [0, 0.25, 0.5, 0.75, 1].map(part => make("span", {}, took(end * part))))),
      test.calls.map(call => callOf(call, end))),
    hidden > 0 ? make("p", { class: "faint" }, `${counted(hidden, "more call")} had no space here.`) : null,
  ];
}

function answerOf(call) {
  return call.unexpected ? "unexpected" : call.answer != null ? String(call.answer) : call.state;
}

function callOf(call, end) {
  const inside = make("div", { class: "messages" });
  const kind = isBad(call) ? "bad" : call.answer >= 400 ? "error" : "good";
  const details = make("details", { class: `call ${kind}`, ontoggle: () => {
    if (details.open && !inside.hasChildNodes()) {
      fill(inside, {}, messagesOf(call));
    }
  } },
    make("summary", {}, make("span", { class: "faint at" }, String(call.number)),
      make("span", { class: "url", title: `${call.method} ${call.url}` }, `${call.method} ${pathOf(call.url)} `,
        make("span", { class: "faint" }, hostOf(call.url))),
      make("span", { class: "answer" }, answerOf(call),
        call.repeats != null ? make("span", { class: "repeats" }, ` again, after ${call.repeats}`) : null),
      make("span", { class: "number" }, took(call.durationMillis)),
      bar(call, end)),
    inside);
  return details;
}

function hostOf(url) {
  return /^[a-z]+:\/\/([^/?]*)/.exec(url)?.[1] ?? "";
}

function pathOf(url) {
  return url.replace(/^[a-z]+:\/\/[^/?]*/, "");
}

function isBad(call) {
  return call.unexpected || call.fault != null || call.failure != null;
}

/** What happened when, from the arrival of a call to the end of its answer. */
function bar(call, end) {
  const times = call.times ?? {};
  const last = call.durationMillis ?? end - call.startMillis;
  const stages = isBad(call) ? [[0, last, "failed"]] : [
    [0, times.held ?? times.released ?? last, "matching"],
    times.held != null ? [times.held, times.released ?? last, "held"] : null,
    times.released != null ? [times.released, times.firstByte ?? last, "delayed"] : null,
    times.firstByte != null ? [times.firstByte, last, "sending"] : null,
  ].filter(it => it != null);
  const scale = 1000 / end;
  const words = `from ${took(call.startMillis)} to ${took(call.startMillis + last)}`;
  return draw("svg", { class: "bar", viewBox: "0 0 1000 14", preserveAspectRatio: "none", role: "img", "aria-label": words },
    draw("title", {}, words),
    // A short call must still be seen.
    draw("rect", { class: stages[0][2], x: Math.min(996, call.startMillis * scale), y: 2, width: 4, height: 10 }),
    stages.map(([from, to, stage]) => draw("rect", { class: stage, x: (call.startMillis + from) * scale, y: 2,
      width: Math.max(0, (to - from) * scale), height: 10 })));
}

function messagesOf(call) {
  const facts = [
    call.stub ? `Answered by "${call.stub}" (${call.place})` : null,
    call.thread ? `thread ${call.thread}` : null,
    `${call.protocol}, connection ${call.connection}`,
    call.madeBy ? `made by ${call.madeBy}` : null,
  ].filter(it => it != null).join("; ");
  return [
    make("div", {}, make("p", { class: "faint" }, `${facts}.`),
      call.explanation ? make("pre", { class: "problem" }, call.explanation) : null,
      call.failure ? make("pre", { class: "problem" }, call.failure) : null,
      call.isBrief ? make("p", { class: "faint" }, "Headers and body had no space here; they are in run.json.") : null),
    message("Request", call.request), message(`Response ${answerOf(call)}`, call.response),
  ];
}

function message(title, content) {
  if (content == null) {
    return null;
  }
  const names = Object.keys(content.headers);
  return make("div", {}, make("h3", {}, title),
    names.length > 0 ? make("table", { class: "headers" }, make("tbody", {}, names.map(name => make("tr", {},
      make("th", { scope: "row" }, name), make("td", {}, content.headers[name]))))) : null,
    content.body != null ? make("pre", { tabindex: "0" }, content.body) : null,
    content.cut || content.body == null && content.size > 0
      ? make("p", { class: "faint" }, `The body has ${bytes(content.size)}${content.cut ? "; this is its beginning" : "; it is not text"}.`) : null);
}

// What should not have happened.

function unexpected() {
  const all = run.tests.flatMap(test => test.unexpected.map(it => ({ ...it, test: test.name })));
  return section("unexpected", "Unexpected calls", all.length === 0
    ? make("p", {}, "None: each call had a stub, or a cassette.")
    : all.slice(0, MOST_AT_ONCE).map(it => make("details", {},
      make("summary", {}, " ", make("code", {}, it.summary), `, ${counted(it.times, "time")}, in ${it.test}`),
      make("p", {}, "See ", linkTo(it.test), "."), make("pre", { class: "problem" }, it.explanation))),
    all.length > MOST_AT_ONCE ? make("p", { class: "faint" }, `${all.length - MOST_AT_ONCE} more are in run.json.`) : null);
}

// What was never used.

function isUnused(stub) {
  return stub.calls === 0 && stub.unusedIn > 0;
}

function neverGivenOf(stub) {
  return stub.calls === 0 ? [] : stub.answers.filter(it => it.calls === 0).map(it => [it.answer, stub]);
}

function reason(stub) {
  return stub.coveredBy ? `unreachable: ${stub.coveredBy} always wins`
    : stub.beatenBy ? `${stub.beatenBy} answered its calls` : "no call matched it";
}

function stubs() {
  const unused = run.stubs.filter(isUnused);
  const neverGiven = run.stubs.flatMap(neverGivenOf);
  const usedUp = run.stubs.filter(stub => stub.usedUpIn > 0);
  const place = stub => make("span", { class: "place" }, stub.place);
  return section("stubs", "Stubs",
    unused.length === 0 ? make("p", {}, "Each stub answered a call.") : table("Stubs that no test used", ["stub", "declared at", "why"],
      unused.slice(0, MOST_AT_ONCE).map(stub => [stub.name, place(stub), reason(stub)])),
    neverGiven.length === 0 ? null : table("Answers that were never given", ["answer", "of stub", "declared at"],
      neverGiven.slice(0, MOST_AT_ONCE).map(([answer, stub]) => [answer, stub.name, place(stub)])),
    usedUp.length === 0 ? null : table("Stubs that were used up at the end of a test", ["stub", "declared at", "calls"],
      usedUp.slice(0, MOST_AT_ONCE).map(stub => [stub.name, place(stub), stub.calls])),
    run.stubs.length === 0 ? null : make("details", {}, make("summary", {}, ` All ${counted(run.stubs.length, "stub")}`),
      table("All stubs", ["stub", "declared at", "answers", "calls"], run.stubs.slice(0, 1000).map(stub =>
        [stub.name, place(stub), stub.answers.map(it => `${it.answer} (${it.calls})`).join(", "), stub.calls]))));
}

// What of the API descriptions tests met.

function descriptions() {
  return run.descriptions.length === 0 ? null : section("descriptions", "API descriptions", run.descriptions.map(matrix));
}

function matrix(service) {
  const statuses = [...new Set(service.operations.flatMap(it => it.statuses.map(cell => cell.status)))].sort();
  const cell = (operation, status) => {
    const cells = operation.statuses.filter(it => it.status === status);
    if (cells.length === 0) {
      return make("td", {});
    }
    const calls = cells.reduce((sum, it) => sum + it.calls, 0);
    const types = cells.filter(it => it.mediaType != null && cells.length > 1)
      .map(it => make("div", {}, `${it.mediaType}: ${it.calls === 0 ? "never" : it.calls}`));
    return make("td", { class: cells.every(it => it.calls > 0) ? "met" : "never" },
      types.length > 0 ? types : calls === 0 ? "never" : String(calls));
  };
  const others = service.operations.some(it => it.undocumented.length > 0);
  return make("div", {},
    make("h3", {}, `${service.name}, ${service.origin}`),
    table(`${service.met} of ${service.documented} documented responses were met (${service.percent} %). Number of calls:`,
      ["operation", ...statuses, ...(others ? ["not documented"] : [])],
      service.operations.map(operation => [operation.operation, ...statuses.map(status => cell(operation, status)),
        ...(others ? [operation.undocumented.map(it => `${it.answer}: ${it.calls}`).join(", ")] : [])]), "matrix"),
    service.callsOfNoOperation > 0 ? make("p", { class: "problem" },
      `${counted(service.callsOfNoOperation, "call")} had no operation in it.`) : null);
}

function faults() {
  const kinds = [...new Set(run.faults.flatMap(it => it.faults.map(fault => fault.fault)))].sort();
  return section("faults", "Faults", run.faults.length === 0
    ? make("p", {}, "No test met a network failure: no fault was stubbed, or none was reached.")
    : table("How often each service failed", ["service", ...kinds], run.faults.map(it => [it.service, ...kinds.map(kind => {
      const times = it.faults.find(fault => fault.fault === kind)?.times;
      return make("td", { class: times ? "met" : null }, times ? String(times) : "");
    })]), "matrix"));
}

// What the code did with each fault at each of its calls.

function sweeps() {
  return run.sweeps.length === 0 ? null : section("sweeps", "Fault sweeps", run.sweeps.map(sweep => {
    const faults = [...new Set(sweep.runs.map(it => it.fault))];
    const calls = [...new Map(sweep.runs.map(it => [it.number, it.call]))].sort((one, other) => one[0] - other[0]);
    const wrong = sweep.runs.filter(it => it.findings.length > 0);
    return make("div", {},
      make("h3", {}, sweep.name),
      table(`${wrong.length === 0 ? "None" : wrong.length} of ${counted(sweep.runs.length, "run")} with a fault went wrong.`,
        ["call", ...faults], calls.map(([number, call]) => [`${number} ${call}`,
          ...faults.map(fault => sweepCell(sweep.runs.filter(it => it.number === number && it.fault === fault)))]), "matrix sweep"),
      make("p", { class: "legend" }, "ok: it returned a right result, +n: after n more calls; error: it threw what is allowed; "
        + "wrong n/m: n of m runs, one for each member of the body."),
      wrong.length === 0 ? null : table("What went wrong", ["run", "finding"],
        wrong.slice(0, MOST_AT_ONCE).map(it => [it.id, make("div", { class: "finding" }, it.findings.join("\n"))])));
  }));
}

function sweepCell(runs) {
  if (runs.length === 0) {
    return make("td", {});
  }
  const wrong = runs.filter(it => it.findings.length > 0);
  const hung = runs.some(it => it.outcome === "hung");
  const repeats = Math.max(...runs.map(it => it.repeats));
  const failed = runs.some(it => it.outcome === "failed as allowed");
  const text = hung ? "hung" : wrong.length > 0 ? "wrong" : runs.every(it => it.outcome === "not met") ? "-"
    : failed ? "error" : repeats > 0 ? `ok +${repeats}` : "ok";
  return make("td", { class: wrong.length > 0 ? "never" : failed ? "allowed" : "met", title: runs.map(it => it.id).join("\n") },
    wrong.length > 0 && runs.length > 1 ? `${text} ${wrong.length}/${runs.length}` : text);
}

function cassettes() {
  return run.cassettes.length === 0 ? null : section("cassettes", "Cassettes",
    table("Recorded exchanges, and what was done with them",
      ["cassette", "mode", "recorded at", "exchanges", "replayed", "calls", "recorded", "real services took"],
      run.cassettes.map(it => [it.name, it.mode.toLowerCase(), it.recordedAt
        ? make("span", {}, moment(it.recordedAt), it.stale ? make("strong", {}, " stale") : null) : "",
        it.exchanges, it.replayed, it.calls, it.recorded, took(it.realMillis)])));
}

function time() {
  const slowest = [...run.tests].sort((one, other) => other.durationMillis - one.durationMillis).slice(0, 20);
  return section("time", "Time",
    run.totals.recordedServicesMillis > 0 ? make("p", {}, `The real services took ${took(run.totals.recordedServicesMillis)} `
      + "for the calls that cassettes answered.") : null,
    table("The slowest tests", ["test", "took", "waiting for answers", "share"],
      slowest.map(test => [linkTo(test.name), took(test.durationMillis), took(test.waitingMillis), share(test.waitingMillis, test.durationMillis)])));
}

const sections = [overview(), tests(), unexpected(), stubs(), descriptions(), faults(), sweeps(), cassettes(), time()]
  .filter(it => it != null);
document.getElementById("main").append(...sections);
document.getElementById("sections").append(...sections.map(it =>
  make("a", { href: `#${it.id}` }, it.querySelector("h2").textContent)));
addEventListener("hashchange", follow);
follow();
