// Cases as they are captured, to name, drop and mark them; or as they are replayed, with what differs.
import { done, json } from "/page/api.js";
import { make } from "/page/dom.js";

const PAUSE = 1000;

export function showCases(main) {
  const told = make("p", { role: "status", id: "case-count" });
  const list = make("div", { class: "sources cases" });
  main.append(make("div", { class: "tools" }, told), make("div", { class: "list scrolls" }, list));
  let before = "";
  const load = async () => {
    try {
      const { cases } = await json("/cases");
      const now = JSON.stringify(cases);
      // Nobody loses what is being typed.
      if (now !== before && !list.contains(document.activeElement?.closest("input"))) {
        before = now;
        told.textContent = count(cases);
        list.replaceChildren(...cases.map(each => section(each, load)));
      }
    } catch (failed) {
      told.textContent = failed.message;
      list.replaceChildren();
      before = "";
    }
  };
  load();
  const timer = setInterval(load, PAUSE);
  return { update() {}, leave() { clearInterval(timer); } };
}

function count(cases) {
  const different = cases.filter(each => each.same === false).length;
  const all = cases.length === 1 ? "1 case" : `${cases.length} cases`;
  return cases.some(each => each.same != null)
    ? `${all}, ${different === 0 ? "all as captured" : `${different} different`}` : all;
}

function section(each, load) {
  return each.same == null ? captured(each, load) : replayed(each);
}

function captured({ number, name, file, incoming, outcome, outgoing, varying, change }, load) {
  const said = make("p", { role: "alert" });
  const act = action => async event => {
    event.preventDefault();
    try {
      await action();
      document.activeElement?.blur();
      await load();
    } catch (failed) {
      said.textContent = failed.message;
    }
  };
  const newName = make("input", { value: name, "aria-label": `Name of case ${number}`, required: true });
  const place = make("input", { placeholder: "$.id", "aria-label": `Place that varies in case ${number}`,
    required: true });
  const path = `/cases/${number}`;
  return make("section", {},
    make("h2", {}, number === 0 ? name : `${number}  ${name}`, " ",
      make("span", { class: "label" }, change)),
    make("p", {}, make("code", {}, file)),
    make("ul", {}, incoming.map((call, at) =>
      make("li", {}, make("code", {}, call), at === incoming.length - 1 ? `  ${outcome}` : ""))),
    outgoing.length === 0 ? make("p", {}, "No outgoing calls.")
      : make("details", { open: number === 0 },
        make("summary", {}, outgoing.length === 1 ? "1 outgoing call" : `${outgoing.length} outgoing calls`),
        make("ul", {}, outgoing.map(call => make("li", {}, make("code", {}, call))))),
    varying.length === 0 ? null : make("p", {}, "Varying: ",
      varying.flatMap((one, at) => [at === 0 ? null : ", ", make("code", {}, one)])),
    number === 0 ? null : make("div", { class: "tools" },
      make("form", { onsubmit: act(() => done(`${path}/name`, { method: "PUT", body: newName.value })) },
        newName, make("button", { type: "submit" }, "Name")),
      make("form", { onsubmit: act(() => done(`${path}/varying`, { method: "POST", body: place.value })) },
        place, make("button", { type: "submit" }, "Varies")),
      make("button", { type: "button", onclick: act(() => done(path, { method: "DELETE" })) }, "Drop")),
    said);
}

function replayed({ name, file, calls, same, updated, findings = [] }) {
  return make("section", {},
    make("h2", {}, name, " ", make("span", { class: `outcome ${same ? "met" : "unmet"}` },
      updated ? "updated" : same ? "as captured" : "different")),
    make("p", {}, make("code", {}, file)),
    make("ul", {}, calls.map(call => make("li", {}, make("code", {}, call)))),
    findings.length === 0 ? null : make("table", { class: "sheet" },
      make("thead", {}, make("tr", {}, ["What differs", "Call", "Place", "Expected", "Actual", "Cause"]
        .map(heading => make("th", { scope: "col" }, heading)))),
      make("tbody", {}, findings.map(finding => make("tr", {},
        make("td", {}, finding.kind), make("td", {}, make("code", {}, finding.call)),
        ["place", "expected", "actual", "cause"].map(member =>
          make("td", {}, finding[member] ? make("code", {}, finding[member]) : null)))))));
}
