// The stubs in force, and a text to add or change some.
import { json, done, text, Problem } from "/page/api.js";
import { completing } from "/page/complete.js";
import { make } from "/page/dom.js";
import { change } from "/page/page.js";

const EXAMPLE = `stubs:
  - name: tides of today
    request: GET https://tides.example/v1/tides
    answer:
      json: { station: Marrow Bay, high: "04:10" }
`;

export function showStubs(main) {
  let editing = null;
  const list = make("tbody");
  const counted = make("p", { role: "status", id: "stub-count" });
  const area = make("textarea", { id: "stub-text", rows: "14", spellcheck: "false", "aria-describedby": "stub-problems" });
  const offers = make("ul", { id: "stub-offers", role: "listbox", "aria-label": "What can stand here", hidden: true });
  const problems = make("ul", { id: "stub-problems", role: "alert" });
  const title = make("h2", {}, "Add stubs");
  const save = make("button", { type: "submit" }, "Add");
  const other = make("button", { type: "button", hidden: true, onclick: () => edit(null, EXAMPLE) }, "Add others instead");
  const form = make("form", { class: "editor", onsubmit: event => { event.preventDefault(); send(); } },
    title, make("label", { for: "stub-text" }, "A stub file, in YAML or JSON; it completes as you type"), area, offers, problems,
    make("div", { class: "tools" }, save, other));
  main.append(
    make("div", { class: "tools" },
      make("button", { type: "button", onclick: load }, "Refresh"), counted),
    make("div", { class: "split stubs" },
      make("div", { class: "list scrolls" }, make("table", { id: "stubs" },
        make("caption", {}, "Stubs in force, those of the innermost scope first"),
        make("thead", {}, make("tr", {}, ["Calls", "Stub", "Request", "Where", "Change"]
          .map(name => make("th", { scope: "col" }, name)))), list)),
      form));

  function edit(id, content) {
    editing = id;
    title.textContent = id == null ? "Add stubs" : `Change what was added as number ${id}`;
    save.textContent = id == null ? "Add" : "Replace";
    other.hidden = id == null;
    area.value = content;
    problems.replaceChildren();
  }

  async function send() {
    problems.replaceChildren();
    try {
      const path = editing == null ? "/stubs" : `/stubs/${editing}`;
      await done(path, { method: editing == null ? "POST" : "PUT", body: area.value });
      edit(null, EXAMPLE);
      await load();
    } catch (failed) {
      if (!(failed instanceof Problem)) {
        throw failed;
      }
      const all = failed.problems.length ? failed.problems : [{ message: failed.message }];
      problems.replaceChildren(...all.map(each => make("li", {},
        each.line == null ? each.message : make("button", { type: "button", class: "link", onclick: () => goTo(each) },
          `line ${each.line}, column ${each.column}: ${each.message}`))));
    }
  }

  /** Puts the cursor where a problem is. */
  function goTo({ line, column }) {
    const lines = area.value.split("\n");
    const at = lines.slice(0, line - 1).reduce((sum, each) => sum + each.length + 1, 0) + column - 1;
    area.focus();
    area.setSelectionRange(at, at + Math.max(1, (lines[line - 1] ?? "").length - column + 1));
  }

  function state(stub) {
    if (stub.coveredBy) {
      return `unreachable: ${stub.coveredBy} always wins`;
    }
    if (stub.waitsFor.length) {
      return stub.waitsFor.join("; ");
    }
    if (stub.beaten && stub.calls === 0) {
      return `${stub.beaten === 1 ? "a call" : `${stub.beaten} calls`} that it fits went to ${stub.beatenBy}`;
    }
    return stub.calls === 0 ? "not called yet" : "in use";
  }

  async function load() {
    let told;
    try {
      told = await json("/stubs/all");
    } catch (failed) {
      told = { stubs: [], changes: !(failed instanceof Problem && failed.status === 409) };
      counted.textContent = failed.message;
    }
    const { stubs, changes } = told;
    form.hidden = !changes;
    if (stubs.length === 0 && !changes) {
      list.replaceChildren();
      return;
    }
    counted.textContent = stubs.length === 1 ? "1 stub" : `${stubs.length} stubs`;
    const off = changes ? (await json("/stubs", { headers: { accept: "application/json" } })).added
      .filter(each => !each.active) : [];
    list.replaceChildren(...stubs.map(stub => make("tr", { class: stub.waitsFor.length ? "waits" : null },
      make("td", { class: "number" },
        make("button", { type: "button", class: "link", title: "Show these calls", onclick: () =>
          change({ filter: `stub:"${stub.name}"`, call: null }, "calls") }, String(stub.calls))),
      make("th", { scope: "row" }, stub.name, make("p", { class: "remark" }, state(stub))),
      make("td", {}, make("code", {}, stub.request)),
      make("td", { class: "place" }, stub.place, make("p", { class: "remark" }, stub.scope)),
      make("td", {}, stub.id == null ? null : [
        make("button", { type: "button", "aria-label": `Edit ${stub.name}`, onclick: async () =>
          edit(stub.id, (await json(`/stubs/${stub.id}`)).file) }, "Edit"),
        switchButton(stub.id, stub.name, false), removeButton(stub.id, stub.name)]))), ...off.map(switchedOff));
  }

  /** Stubs that were added together and answer nothing until they are switched on. */
  function switchedOff({ id, stubs }) {
    const names = stubs.map(stub => stub.name.replace(/^"(.*)" \(.*\)$/, "$1")).join(", ");
    return make("tr", { class: "waits" }, make("td", { class: "number" }, "off"),
      make("th", { scope: "row" }, names, make("p", { class: "remark" }, "switched off")),
      make("td", {}), make("td", { class: "place" }, make("p", { class: "remark" }, "added here")),
      make("td", {}, switchButton(id, names, true), removeButton(id, names)));
  }

  function switchButton(id, name, on) {
    const words = on ? "Switch on" : "Switch off";
    return make("button", { type: "button", "aria-label": `${words} ${name}`, onclick: async () => {
      await done(`/stubs/${id}/active`, { method: "PUT", body: String(on) });
      await load();
    } }, words);
  }

  function removeButton(id, name) {
    return make("button", { type: "button", "aria-label": `Remove ${name}`, onclick: async () => {
      await done(`/stubs/${id}`, { method: "DELETE" });
      if (editing === id) {
        edit(null, EXAMPLE);
      }
      await load();
    } }, "Remove");
  }

  completing(area, offers);
  const draft = sessionStorage.getItem("cachette-draft");
  sessionStorage.removeItem("cachette-draft");
  edit(null, draft ?? EXAMPLE);
  if (draft != null) {
    area.focus();
  }
  load();
  return { update() {} };
}
