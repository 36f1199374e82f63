// Cassettes with their exchanges, and API descriptions with what was called of them.
import { json } from "/page/api.js";
import { make, refreshed } from "/page/dom.js";
import { change } from "/page/page.js";

export function showSources(main) {
  const list = make("div", { class: "sources" });
  refreshed(main, "source-count", list, async () => {
    const { cassettes, descriptions } = await json("/sources");
    list.replaceChildren(...descriptions.map(description), ...cassettes.map(cassette));
    return `${counted(cassettes.length, "cassette")}, ${counted(descriptions.length, "API description")}`;
  });
  return { update() {} };
}

function counted(count, what) {
  return `${count} ${what}${count === 1 ? "" : "s"}`;
}

function table(caption, columns, rows) {
  return make("table", { class: "sheet" }, make("caption", {}, caption),
    make("thead", {}, make("tr", {}, columns.map(name => make("th", { scope: "col" }, name)))),
    make("tbody", {}, rows));
}

function description(service) {
  const met = service.operations.filter(each => Object.keys(each.answers).length > 0).length;
  const strange = service.callsOfNoOperation
    ? `, and ${counted(service.callsOfNoOperation, "call")} fit none of them` : "";
  return make("section", {}, make("h2", {}, `${service.name}, for ${service.origin}`),
    table(`${met} of ${counted(service.operations.length, "operation")} called${strange}`,
      ["Operation", "Answers", "Where"],
      service.operations.map(each => make("tr", { class: Object.keys(each.answers).length ? null : "waits" },
        make("th", { scope: "row" }, make("code", {}, each.operation)),
        make("td", {}, Object.entries(each.answers).map(([answer, times]) => `${answer} (${times})`).join(", ")
          || "not called yet"),
        make("td", { class: "place" }, each.place)))));
}

function cassette(cassette) {
  const all = cassette.exchanges.length < cassette.count ? `, of which the first ${cassette.exchanges.length} are here` : "";
  return make("section", {}, make("h2", {}, `The cassette ${cassette.name}`),
    table(`${counted(cassette.count, "exchange")}${all}; mode ${cassette.mode}`
      + (cassette.recordedAt ? `; recorded ${cassette.recordedAt.slice(0, 10)}` : ""),
    ["Request", "Answer", "Calls"],
    cassette.exchanges.map(each => make("tr", {},
      make("th", { scope: "row" }, make("code", {}, each.request)),
      make("td", {}, each.outcome),
      make("td", {}, make("button", { type: "button", class: "link", onclick: () =>
        change({ filter: `"${each.request.replace(/^\S+ /, "").replace(/\?.*/, "")}"`, call: null }, "calls") }, "Show"))))));
}
