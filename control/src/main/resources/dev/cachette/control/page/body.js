// A body, laid out by its format, with a search in it.
import { difference, make, size } from "/page/dom.js";
import { xml } from "/page/xml.js";

/** Deeper and longer parts of JSON are shown when they are opened. */
const MOST_OPEN = 3;

/** More bytes are not laid out. */
const MOST_BYTES = 16 * 1024;

/** Returns the body of a request or response, with these places in it marked; null if it has none. */
export function body(message, marked = new Set()) {
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
    : typeof message.body !== "string" ? make("div", { class: "tree" }, tree(null, message.body, 0, "$", marked))
    : type.startsWith("application/x-www-form-urlencoded") ? form(message.body, marked)
    : type.startsWith("multipart/") ? multipart(message.body, message.mediaType, marked)
    : /[/+]xml/.test(type) ? make("pre", {}, xml(message.body, marked))
    : make("pre", {}, plain(message.body, marked));
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
function form(text, marked) {
  const fields = [...new URLSearchParams(text)];
  return make("table", { class: "headers" }, make("tbody", {},
    fields.map(([name, value]) => make("tr", {}, make("th", { scope: "row" }, name),
      make("td", {}, value, marked.has(`form ${name}`) ? difference() : null))),
    lacking("form ", fields.map(([name]) => name), marked).map(name => make("tr", {},
      make("th", { scope: "row" }, name), make("td", {}, difference("missing"))))));
}

/** Text, with the first character that differs marked. */
function plain(text, marked) {
  const place = [...marked].map(each => /^character (\d+)$/.exec(each)?.[1]).find(each => each != null);
  return place == null ? [text]
    : [text.slice(0, place - 1), difference("differs here"), text.slice(place - 1)];
}

/** The parts of a multipart body (RFC 2046 section 5.1), each with its header fields; as it is if it has none. */
function multipart(text, mediaType, marked) {
  const boundary = /boundary="?([^";]+)"?/i.exec(mediaType)?.[1];
  const parts = boundary == null ? [] : `\r\n${text}`.split(`\r\n--${boundary}`).slice(1)
    .filter(part => !part.startsWith("--"));
  const names = parts.map(part => /;\s*name="([^"]*)"/i.exec(part)?.[1]);
  return parts.length === 0 ? make("pre", {}, text) : make("div", {}, parts.map((part, at) => {
    const end = part.indexOf("\r\n\r\n");
    const fields = (end < 0 ? "" : part.slice(0, end)).split("\r\n").filter(line => line.includes(":"));
    const content = end < 0 ? part.trim() : part.slice(end + 4);
    return make("section", { class: "bodypart", "aria-label": `Part ${at + 1}` },
      make("table", { class: "headers" }, make("caption", {}, `Part ${at + 1} of ${parts.length}`,
        marked.has(`part ${names[at]}`) ? difference() : null),
        make("tbody", {}, fields.map(line => make("tr", {},
          make("th", { scope: "row" }, line.slice(0, line.indexOf(":"))),
          make("td", {}, line.slice(line.indexOf(":") + 1).trim()))))),
      make("pre", {}, content));
  }), lacking("part ", names, marked).map(name => make("p", {}, `part ${name}: `, difference("missing"))));
}

/** Names of this kind that are marked, and not there. */
function lacking(kind, names, marked) {
  return [...marked].filter(place => place.startsWith(kind)).map(place => place.slice(kind.length))
    .filter(name => !names.includes(name));
}

function tree(name, value, depth, path, marked) {
  const key = name == null ? null : make("span", { class: "key" }, `${name}: `);
  const differs = marked.has(path) ? difference() : null;
  if (value === null || typeof value !== "object") {
    return make("div", { class: "leaf" }, key, make("span", { class: typeof value }, JSON.stringify(value)), differs);
  }
  const entries = Array.isArray(value) ? value.map((each, at) => [at, each]) : Object.entries(value);
  const summary = Array.isArray(value)
    ? `[${entries.length} ${entries.length === 1 ? "item" : "items"}]`
    : `{${entries.length} ${entries.length === 1 ? "member" : "members"}}`;
  if (entries.length === 0) {
    return make("div", { class: "leaf" }, key, Array.isArray(value) ? "[]" : "{}", differs,
      missing(path, value, marked));
  }
  const part = make("details", {}, make("summary", {}, key, make("span", { class: "remark" }, summary), differs));
  const fill = () => {
    if (part.open && part.childElementCount === 1) {
      part.append(...entries.map(([each, inner]) => tree(each, inner, depth + 1, within(path, each), marked)),
        ...missing(path, value, marked));
    }
  };
  part.addEventListener("toggle", fill);
  part.fill = () => { part.open = true; fill(); };
  if (depth < MOST_OPEN && entries.length <= 100) {
    part.fill();
  }
  return part;
}

/** Returns the path of a member or an element, as explanations write it. */
function within(path, name) {
  return typeof name === "number" ? `${path}[${name}]`
    : /^[A-Za-z_][A-Za-z0-9_]*$/.test(name) ? `${path}.${name}` : `${path}['${name}']`;
}

/** Names what should be in a value and is not there. */
function missing(path, value, marked) {
  const names = [...marked].filter(each => each.startsWith(`${path}.`)).map(each => each.slice(path.length + 1))
    .filter(each => /^[A-Za-z_][A-Za-z0-9_]*$/.test(each) && !Array.isArray(value) && !(each in value));
  return names.map(each => make("div", { class: "leaf" }, difference(`${each} is missing`)));
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
