// Completes the keys and values of a stub file that is being written in YAML, by its JSON Schema.
import { json } from "/page/api.js";
import { make } from "/page/dom.js";

const KEY = /^( *)((?:- +)*)([\w$-]*)$/;
const VALUE = /^( *)((?:- +)*)([\w$-]+): +([\w-]*)$/;
const LINE = /^( *)((?:- +)*)([^:#]+?):(?: |$)/;

/** Makes a text area complete what is being typed; Control and space ask for it. */
export function completing(area, list) {
  let schema = null;
  let offers = [];
  let chosen = -1;
  area.setAttribute("aria-autocomplete", "list");
  area.setAttribute("aria-controls", list.id);
  json("/schema.json").then(told => { schema = told; }, () => {});

  function show(all) {
    offers = all;
    chosen = -1;
    draw();
  }

  function draw() {
    list.replaceChildren(...offers.map((offer, at) => make("li", {
      role: "option", id: `stub-offer-${at}`, "aria-selected": String(at === chosen),
      onmousedown: event => { event.preventDefault(); take(offer); },
    }, make("code", {}, offer.name), make("span", {}, offer.help))));
    list.hidden = offers.length === 0;
    if (chosen >= 0) {
      area.setAttribute("aria-activedescendant", `stub-offer-${chosen}`);
      list.children[chosen].scrollIntoView({ block: "nearest" });
    } else {
      area.removeAttribute("aria-activedescendant");
    }
  }

  function take(offer) {
    const from = area.selectionStart - offer.typed;
    area.setRangeText(offer.text, from, area.selectionStart, "end");
    show([]);
    area.focus();
  }

  area.addEventListener("input", () => show(schema == null ? [] : offered(schema, area, 1)));
  area.addEventListener("blur", () => show([]));
  area.addEventListener("keydown", event => {
    if (event.key === " " && event.ctrlKey && schema != null) {
      event.preventDefault();
      show(offered(schema, area, 0));
    } else if (offers.length > 0 && (event.key === "ArrowDown" || event.key === "ArrowUp")) {
      event.preventDefault();
      chosen = (chosen + (event.key === "ArrowDown" ? 1 : chosen < 0 ? 0 : -1) + offers.length) % offers.length;
      draw();
    } else if (chosen >= 0 && (event.key === "Enter" || event.key === "Tab")) {
      event.preventDefault();
      take(offers[chosen]);
    } else if (event.key === "Escape" && offers.length > 0) {
      event.stopPropagation();
      show([]);
    }
  });
}

/** What can stand at the cursor, if at least so many characters of it are typed. */
function offered(schema, area, least) {
  const before = area.value.slice(0, area.selectionStart).split("\n");
  const after = area.value.slice(area.selectionStart).split("\n").slice(1);
  const line = before.pop();
  const key = KEY.exec(line);
  const value = VALUE.exec(line);
  const typed = (key?.[3] ?? value?.[4] ?? "");
  if (key == null && value == null || typed.length < least) {
    return [];
  }
  const column = (key ?? value)[1].length + (key ?? value)[2].length;
  const here = path(before, column).reduce((schemas, name) => within(schema, schemas, name), expanded(schema, schema));
  const all = key == null
    ? within(schema, here, value[3]).flatMap(values).map(name => ({ name, text: name, help: "" }))
    : keys(here, siblings(before, after, column, line.includes("-")));
  return all.filter(each => each.name.startsWith(typed) && each.name !== typed)
    .map(each => ({ ...each, typed: typed.length }));
}

/** The keys above a column, from the outermost. */
function path(before, column) {
  const names = [];
  let within = column;
  for (const line of [...before].reverse()) {
    const at = LINE.exec(line);
    if (at != null && at[1].length + at[2].length < within) {
      within = at[1].length + at[2].length;
      names.unshift(at[3]);
    }
  }
  return names;
}

/** The keys beside a place, in the same list item. */
function siblings(before, after, column, begins) {
  const names = new Set();
  const scan = (lines, down) => {
    for (const line of lines) {
      const at = LINE.exec(line);
      const there = at == null ? -1 : at[1].length + at[2].length;
      if (at == null && line.trim() === "" || there > column) {
        continue;
      }
      if (there !== column || down && at[2] !== "") {
        return;
      }
      names.add(at[3]);
      if (at[2] !== "") {
        return;
      }
    }
  };
  if (!begins) {
    scan([...before].reverse(), false);
  }
  scan(after, true);
  return names;
}

/** The schemas that one stands for: references, alternatives, and the items of lists. */
function expanded(root, schema, depth = 0) {
  if (schema == null || typeof schema !== "object" || depth > 12) {
    return [];
  }
  const target = schema.$ref?.startsWith("#/$defs/") ? root.$defs[schema.$ref.slice("#/$defs/".length)] : null;
  const others = [target, schema.items, ...(schema.anyOf ?? []), ...(schema.oneOf ?? []), ...(schema.allOf ?? [])];
  return [schema, ...others.flatMap(each => expanded(root, each, depth + 1))];
}

function within(root, schemas, name) {
  return schemas.flatMap(each => expanded(root, each.properties?.[name] ?? each.additionalProperties));
}

function keys(schemas, used) {
  const all = new Map();
  for (const each of schemas) {
    for (const [name, { description }] of Object.entries(each.properties ?? {})) {
      if (!used.has(name) && !all.has(name)) {
        all.set(name, { name, text: `${name}: `, help: description ?? "" });
      }
    }
  }
  return [...all.values()];
}

function values(schema) {
  const type = [schema.type ?? []].flat();
  return [...(schema.enum ?? []), ...("const" in schema ? [schema.const] : []), ...(type.length === 1 && type[0] === "boolean" ? [true, false] : [])]
    .map(String);
}
