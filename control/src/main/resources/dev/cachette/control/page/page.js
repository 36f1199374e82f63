// The views, and which one the address names: #/calls?filter=is:unexpected&call=17
import { showCalls } from "/page/calls.js";
import { showCases } from "/page/cases.js";
import { showContracts } from "/page/contracts.js";
import { showMessages } from "/page/messages.js";
import { showSources } from "/page/sources.js";
import { showStubs } from "/page/stubs.js";

const VIEWS = {
  calls: showCalls, stubs: showStubs, sources: showSources, contracts: showContracts, cases: showCases,
  messages: showMessages,
};
let shown = null;

/** Returns the view that the address names, and its parameters. */
export function address() {
  const [path, query] = location.hash.replace(/^#\/?/, "").split("?");
  return { view: VIEWS[path] ? path : "calls", parameters: new URLSearchParams(query ?? "") };
}

/** Changes parameters in the address; empty ones are left out. */
export function change(parameters, view = address().view) {
  const now = view === address().view ? address().parameters : new URLSearchParams();
  for (const [name, value] of Object.entries(parameters)) {
    if (value == null || value === "") {
      now.delete(name);
    } else {
      now.set(name, value);
    }
  }
  const query = now.toString();
  const next = `#/${view}${query ? "?" + query : ""}`;
  if (next !== location.hash) {
    history.pushState(null, "", next);
    show();
  }
}

function show() {
  const { view, parameters } = address();
  if (shown?.name !== view) {
    shown?.leave?.();
    const main = document.getElementById("main");
    main.replaceChildren();
    document.getElementById("connection").textContent = "";
    shown = { name: view, ...VIEWS[view](main) };
  }
  shown.update(parameters);
  document.title = `${document.querySelector(`nav a[data-view=${view}]`).textContent} - Cachette`;
  for (const link of document.querySelectorAll("nav a")) {
    if (link.dataset.view === view) {
      link.setAttribute("aria-current", "page");
    } else {
      link.removeAttribute("aria-current");
    }
  }
}

document.getElementById("token").addEventListener("cancel", event => event.preventDefault());
window.addEventListener("popstate", show);
show();
