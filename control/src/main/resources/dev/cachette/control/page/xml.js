// XML with an element in each line, and what differs in it marked.
import { difference } from "/page/dom.js";

/** Comments, sections of characters, tags, and the text between them. No tag has a "<" in it: callers may send thousands. */
const PARTS = /<!--.*?-->|<!\[CDATA\[.*?\]\]>|<(?:"[^"<]*"|'[^'<]*'|[^<>"'])*>|[^<]+|</gs;

/**
 * Returns the pieces of XML: an element in a line, or as it is if it has lines of its own. The marked places are as
 * explanations write them, such as /stay/berth[2]/@name.
 */
export function xml(text, marked = new Set()) {
  const hasLines = text.trim().includes("\n");
  const parts = text.match(PARTS) ?? [text];
  const pieces = [];
  const elements = [element("")];
  const seen = new Set();
  let last = "";
  parts.forEach((part, at) => {
    const kind = kindOf(part);
    const parent = elements.at(-1);
    if (kind === "close") {
      pieces.push(...missing(parent.path, marked, seen));
    }
    const depth = elements.length - 1 - (kind === "close" ? 1 : 0);
    const isInline = kind === "text" || kind === "close" && (last === "open" || last === "text");
    pieces.push(hasLines || at === 0 || isInline ? part : `\n${"  ".repeat(Math.max(0, depth))}${part}`);
    if (kind === "open" || kind === "empty") {
      const opened = element(step(parent, part));
      seen.add(opened.path);
      pieces.push(...attributes(opened.path, part, marked));
      opened.mark = marked.has(opened.path) ? difference() : null;
      if (kind === "open") {
        elements.push(opened);
      }
      if (opened.mark && (kind === "empty" || !isLeaf(parts, at))) {
        pieces.push(opened.mark);
        opened.mark = null;
      }
    } else if (kind === "close" && elements.length > 1) {
      const mark = elements.pop().mark;
      pieces.push(...mark ? [mark] : []);
    }
    last = kind;
  });
  return pieces;
}

function element(path) {
  return { path, children: new Map(), mark: null };
}

function kindOf(part) {
  return !part.startsWith("<") || part.startsWith("<![CDATA[") || part === "<" ? "text"
    : part.startsWith("</") ? "close" : /^<[!?]/.test(part) ? "other" : part.endsWith("/>") ? "empty" : "open";
}

/** Returns the path of the element that a tag opens. */
function step(parent, tag) {
  const name = /^<([^\s/>]+)/.exec(tag)?.[1] ?? "";
  const number = (parent.children.get(name) ?? 0) + 1;
  parent.children.set(name, number);
  return `${parent.path}/${name}${number > 1 ? `[${number}]` : ""}`;
}

/** Returns true if a tag opens an element with text alone: that is marked behind it. */
function isLeaf(parts, at) {
  const next = parts.slice(at + 1, at + 3).map(kindOf);
  return next[0] === "close" || next[0] === "text" && next[1] === "close";
}

/** Marks of a tag: its attributes, and its text between elements. */
function attributes(path, tag, marked) {
  return within(path, marked).filter(name => name.startsWith("@") || name.startsWith("text()"))
    .map(name => name.startsWith("text()") ? difference("text differs")
      : difference(`${name.slice(1)} ${names(tag).includes(local(name)) ? "differs" : "is missing"}`));
}

/** The names of the attributes of a tag, without prefixes. */
function names(tag) {
  return [...tag.matchAll(/\s(?:[^\s=:]+:)?([^\s=:]+)\s*=\s*(?:"[^"]*"|'[^']*')/g)].map(found => found[1]);
}

/** The name of an attribute without its namespace, which an explanation writes in braces. */
function local(name) {
  return name.replace(/^@(\{.*\})?/, "");
}

function missing(path, marked, seen) {
  return within(path, marked).filter(name => !/^(@|text\(\))/.test(name) && !seen.has(`${path}/${name}`))
    .map(name => difference(`${name} is missing`));
}

/** Returns the marked places directly within an element. */
function within(path, marked) {
  return [...marked].filter(place => place.startsWith(`${path}/`)).map(place => place.slice(path.length + 1))
    .filter(name => !name.replace(/\{.*\}/, "").includes("/"));
}
