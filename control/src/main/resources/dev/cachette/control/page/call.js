// One call: what was asked, what was answered, when, and why not.
import { json, text, Problem } from "/page/api.js";
import { clock, make, copyButton, took } from "/page/dom.js";
import { body } from "/page/body.js";
import { closest, differing } from "/page/closest.js";
import { timeline } from "/page/timeline.js";
import { change } from "/page/page.js";

/** Shows a call in a place. */
export async function showCall(place, number, close) {
  let call;
  try {
    call = await json(`/calls/${number}`);
  } catch (failed) {
    place.replaceChildren(head("This call is not known any more", close),
      make("p", {}, failed instanceof Problem ? failed.message : "The control port does not answer."));
    return;
  }
  place.replaceChildren(...[
    head(`${call.method} ${call.url}`, close),
    make("div", { class: "tools" },
      copyButton("Copy as curl", () => text(`/calls/${number}?as=curl`)),
      copyButton("Copy as stub", () => text(`/calls/${number}?as=stub`)),
      copyButton("Copy as Java", () => text(`/calls/${number}?as=java`)),
      make("button", { type: "button", onclick: async () => {
        sessionStorage.setItem("cachette-draft", await text(`/calls/${number}?as=stub`));
        change({}, "stubs");
      } }, "Make a stub of it")),
    facts(call),
    timeline(call),
    call.explanation ? part("Why nothing answered", make("pre", { class: "explanation" }, call.explanation),
      closest(call)) : null,
    call.failure ? part("Why it failed", make("pre", { class: "explanation" }, call.failure)) : null,
    part("Request", headers(call.headers), body(call, differing(call))),
    call.response ? part(`Response ${call.response.status}`, headers(call.response.headers), body(call.response)) : null,
  ].filter(it => it != null));
}

function head(title, close) {
  return make("div", { class: "title" }, make("h2", {}, title),
    make("button", { type: "button", onclick: close, "aria-label": "Close this call" }, "Close"));
}

function part(title, ...content) {
  return make("details", { open: true, class: "part" }, make("summary", {}, make("h3", {}, title)), ...content);
}

function facts(call) {
  const answer = call.unexpected ? "unexpected: nothing answered it" : String(call.answer ?? call.state);
  const all = [
    ["Answer", answer],
    ["State", call.state],
    ["Stub", call.stub == null ? null : `${call.stub} (${call.place})`],
    ["Test", call.test],
    ["Thread", call.thread],
    ["Arrived", `${new Date(call.arrivedAt).toLocaleDateString("en-CA")} ${clock(call.arrivedAt)}`],
    ["Took", took(call.durationMillis)],
    ["Connection", `${call.protocol}, number ${call.connection}`],
  ];
  return make("dl", { class: "facts" }, all.filter(([, value]) => value)
    .map(([name, value]) => make("div", {}, make("dt", {}, name), make("dd", {}, value))));
}

function headers(all) {
  const names = Object.keys(all ?? {});
  return names.length === 0 ? null : make("table", { class: "headers" },
    make("caption", {}, names.length === 1 ? "1 header" : `${names.length} headers`),
    make("tbody", {}, names.map(name => make("tr", {},
      make("th", { scope: "row" }, name), make("td", {}, all[name])))));
}
