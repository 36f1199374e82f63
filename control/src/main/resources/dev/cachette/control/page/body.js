// A body, laid out by its format, with a search in it.
import { make, size } from "/page/dom.js";

/** Deeper and longer parts of JSON are shown when they are opened. */
const MOST_OPEN = 3;

/** More bytes are not laid out. */
const MOST_BYTES = 16 * 1024;

/** Returns the body of a request or response; null if it has none. */
export function body(message) {
  if (!message.bodySize) {
    return null;
  }
  const told = make("p", { class: "remark" },
    size(message.bodySize) + (message.bodyIsCut ? ", cut: the rest is not shown" : ""));
  const type = (message.mediaType ?? "").toLowerCase();
  if (message.body == null && /^image\/[a-z.+-]+/.test(type) && message.bytes && !message.bodyIsCut) {
    return make("div", { class: "body" }, told, make("img", {
      alt: `A picture, ${message.mediaType}`, src: `data:${type.split(";")[0]};base64,${message.bytes}` }));
  }
  const content = message.body == null ? make("pre", {}, hex(message.bytes ?? ""))
    : typeof message.body !== "string" ? make("div", { class: "tree" }, tree(null, message.body, 0))
    : type.startsWith("application/x-www-form-urlencoded") ? form(message.body)
    : /[/+]xml/.test(type) ? make("pre", {}, indented(message.body))
    : make("pre", {}, message.body);
  const search = make("input", { type: "search", "aria-label": "Search in this body", placeholder: "Search in this body" });
  const found = make("span", { role: "status", class: "remark" });
  search.addEventListener("input", () => mark(content, search.value.toLowerCase(), found));
  return make("div", { class: "body" }, make("div", { class: "bodytools" }, told, search, found), content);
}

/** The first bytes, sixteen in a line, with the text that they may be. */
function hex(base64) {
  const bytes = atob(base64).slice(0, MOST_BYTES);
  const lines = [];
  for (let at = 0; at < bytes.length; at += 16) {
    const part = [...bytes.slice(at, at + 16)];
    const codes = part.map(each => each.charCodeAt(0).toString(16).padStart(2, "0")).join(" ");
    const text = part.map(each => /[ -~]/.test(each) ? each : ".").join("");
    lines.push(`${at.toString(16).padStart(6, "0")}  ${codes.padEnd(47)}  ${text}`);
  }
  return lines.join("\n");
}

/** The fields of a form. */
function form(text) {
  return make("table", { class: "headers" }, make("tbody", {}, [...new URLSearchParams(text)]
    .map(([name, value]) => make("tr", {}, make("th", { scope: "row" }, name), make("td", {}, value)))));
}

/** XML with an element in each line; as it is if it has lines of its own. */
function indented(text) {
  if (text.trim().includes("\n")) {
    return text;
  }
  let depth = 0;
  let last = "";
  let shown = "";
  for (const part of text.match(/<!--.*?-->|<!\[CDATA\[.*?\]\]>|<[^>]*>|[^<]+/gs) ?? [text]) {
    const opens = /^<[^!?/]/.test(part) && !part.endsWith("/>");
    const closes = part.startsWith("</");
    depth -= closes ? 1 : 0;
    const isInline = shown === "" || !part.startsWith("<") || closes && last === "open" || last === "text";
    shown += isInline ? part : `\n${"  ".repeat(Math.max(0, depth))}${part}`;
    depth += opens ? 1 : 0;
    last = opens ? "open" : part.startsWith("<") ? "other" : "text";
  }
  return shown;
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
