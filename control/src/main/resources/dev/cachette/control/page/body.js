// A body, laid out by its format, with a search in it.
import { make, size } from "/page/dom.js";

/** Deeper and longer parts of JSON are shown when they are opened. */
const MOST_OPEN = 3;

/** Returns the body of a request or response; null if it has none. */
export function body(message) {
  if (!message.bodySize) {
    return null;
  }
  const told = make("p", { class: "remark" },
    size(message.bodySize) + (message.bodyIsCut ? ", cut: the rest is not shown" : ""));
  if (message.body == null) {
    return make("div", { class: "body" }, told, make("p", {}, "It is not text."));
  }
  const content = typeof message.body === "string"
    ? make("pre", {}, message.body)
    : make("div", { class: "tree" }, tree(null, message.body, 0));
  const search = make("input", { type: "search", "aria-label": "Search in this body", placeholder: "Search in this body" });
  const found = make("span", { role: "status", class: "remark" });
  search.addEventListener("input", () => mark(content, search.value.toLowerCase(), found));
  return make("div", { class: "body" }, make("div", { class: "bodytools" }, told, search, found), content);
}

function tree(name, value, depth) {
  const key = name == null ? null : make("span", { class: "key" }, `${name}: `);
  if (value === null || typeof value !== "object") {
    return make("div", { class: "leaf" }, key, make("span", { class: typeof value }, JSON.stringify(value)));
  }
  const entries = Array.isArray(value) ? value.map((each, at) => [at, each]) : Object.entries(value);
  const summary = Array.isArray(value)
    ? `[${entries.length} ${entries.length === 1 ? "item" : "items"}]`
    : `{${entries.length} ${entries.length === 1 ? "member" : "members"}}`;
  if (entries.length === 0) {
    return make("div", { class: "leaf" }, key, Array.isArray(value) ? "[]" : "{}");
  }
  const part = make("details", {}, make("summary", {}, key, make("span", { class: "remark" }, summary)));
  const fill = () => {
    if (part.open && part.childElementCount === 1) {
      part.append(...entries.map(([each, inner]) => tree(each, inner, depth + 1)));
    }
  };
  part.addEventListener("toggle", fill);
  part.fill = () => { part.open = true; fill(); };
  if (depth < MOST_OPEN && entries.length <= 100) {
    part.fill();
  }
  return part;
}

function mark(content, wanted, found) {
  for (const old of content.querySelectorAll("mark")) {
    old.replaceWith(old.textContent);
  }
  content.normalize();
  if (wanted === "") {
    found.textContent = "";
    return;
  }
  for (let closed = [...content.querySelectorAll("details")]; closed.length;) {
    closed.forEach(each => each.fill?.());
    closed = [...content.querySelectorAll("details")].filter(each => each.childElementCount === 1);
  }
  const places = document.createTreeWalker(content, NodeFilter.SHOW_TEXT);
  const texts = [];
  while (places.nextNode()) {
    texts.push(places.currentNode);
  }
  let count = 0;
  for (const node of texts) {
    let rest = node;
    for (let at = rest.data.toLowerCase().indexOf(wanted); at >= 0; at = rest.data.toLowerCase().indexOf(wanted)) {
      const hit = rest.splitText(at);
      rest = hit.splitText(wanted.length);
      hit.replaceWith(make("mark", {}, hit.data));
      count++;
    }
  }
  found.textContent = count === 1 ? "found once" : `found ${count} times`;
  content.querySelector("mark")?.scrollIntoView({ block: "nearest" });
}
