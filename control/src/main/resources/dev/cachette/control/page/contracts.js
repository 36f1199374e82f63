// Which versions of consumers and providers work together, by a store of contracts.
import { json } from "/page/api.js";
import { make, refreshed } from "/page/dom.js";

const WORDS = { met: "met", unmet: "not met", unknown: "not verified" };

export function showContracts(main) {
  const list = make("div", { class: "sources" });
  refreshed(main, "contract-count", list, async () => {
    const { pairs } = await json("/compat");
    list.replaceChildren(...pairs.map(pair));
    return pairs.length === 0 ? "The store has no contracts."
      : pairs.length === 1 ? "1 contract" : `${pairs.length} contracts`;
  });
  return { update() {} };
}

function pair({ consumer, provider, consumerVersions, providerVersions, cells }) {
  const of = (row, column) => cells.find(cell =>
    cell.consumerVersion === row.version && cell.providerVersion === column.version);
  return make("section", {}, make("h2", {}, `${consumer} with ${provider}`),
    make("table", { class: "sheet" },
      make("caption", {}, providerVersions.length === 0 ? `${provider} was not verified yet`
        : `Rows: versions of ${consumer}; columns: versions of ${provider}`),
      make("thead", {}, make("tr", {}, make("th", { scope: "col" }, consumer),
        providerVersions.map(each => version("col", `${provider}@`, each)))),
      make("tbody", {}, consumerVersions.map(row => make("tr", {}, version("row", "@", row),
        providerVersions.map(column => cell(of(row, column))))))),
    reasons(consumer, provider, cells));
}

function version(scope, before, { version, labels = [] }) {
  return make("th", { scope }, before + version, labels.flatMap(label =>
    [" ", make("span", { class: "label" }, label)]));
}

function cell({ outcome, at }) {
  return make("td", { class: `outcome ${outcome}` }, WORDS[outcome], " ",
    at ? make("time", { datetime: at }, at.slice(0, 16).replace("T", " ") + " UTC") : null);
}

function reasons(consumer, provider, cells) {
  return cells.filter(cell => cell.unmet?.length > 0).map(cell => make("div", { class: "reasons" },
    make("h3", {}, `${provider}@${cell.providerVersion} does not meet ${consumer}@${cell.consumerVersion}`),
    make("ul", {}, cell.unmet.map(why => make("li", {}, why)))));
}
