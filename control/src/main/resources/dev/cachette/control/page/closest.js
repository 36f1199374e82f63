// The stubs that came closest to answering a call, condition by condition.
import { make } from "/page/dom.js";

/** Makes a table of each of them. */
export function closest(call) {
  return (call.closestStubs ?? []).map(stub => make("table", { class: "closest" },
    make("caption", {}, `${stub.stub} (${stub.place})`),
    make("thead", {}, make("tr", {}, ["", "Condition", "Expected", "Actual"].map((name, at) =>
      at === 0 ? make("td", {}) : make("th", { scope: "col" }, name)))),
    make("tbody", {}, stub.conditions.map(row))));
}

function row({ condition, holds, expected, differences }) {
  const lines = (differences.length ? differences : [{ at: "", expected }]);
  return make("tr", { class: holds ? "holds" : "misses" },
    make("td", {}, holds ? "ok" : "no"), make("th", { scope: "row" }, condition),
    make("td", {}, lines.map(each => make("p", {}, each.at ? `${each.at}: ` : "", each.expected))),
    make("td", {}, lines.map(each => make("p", {}, each.actual ?? "", each.cause ? ` (${each.cause})` : ""))));
}

/** Returns the places in the body that the closest stub requires to be different, as its explanation writes them. */
export function differing(call) {
  const conditions = call.closestStubs?.[0]?.conditions ?? [];
  return new Set(conditions.filter(each => !each.holds).flatMap(({ condition, differences }) =>
    /^(form|part) /.test(condition) ? [condition]
      : differences.map(({ at }) => at || /^(?:json|xpath) (\S+)$/.exec(condition)?.[1])
        .filter(place => /^(\$|\/|character )/.test(place ?? ""))));
}
