// Completes the term that is being typed, with the fields that the control port knows.
import { json } from "/page/api.js";
import { make } from "/page/dom.js";

const METHODS = ["GET", "POST", "PUT", "PATCH", "DELETE", "HEAD", "OPTIONS"];

/** Makes a text field complete terms; calls `changed` when the filter is to be applied. */
export function completing(field, list, changed) {
  let fields = [];
  let chosen = -1;
  let timer = 0;
  json("/filters").then(told => { fields = told.fields; }, () => {});
  field.setAttribute("role", "combobox");
  field.setAttribute("aria-expanded", "false");
  field.setAttribute("aria-controls", list.id);
  field.setAttribute("aria-autocomplete", "list");

  function term() {
    const before = field.value.slice(0, field.selectionStart);
    const start = before.lastIndexOf(" ") + 1;
    return { start, text: before.slice(start) };
  }

  function offers() {
    const { text } = term();
    const bare = text.replace(/^-/, "");
    const minus = text.startsWith("-") ? "-" : "";
    const [name, value] = bare.split(/:(.*)/s);
    if (value == null) {
      return fields.filter(each => each.field.startsWith(name))
        .map(each => ({ text: `${minus}${each.field}:`, help: each.for, example: each.example }));
    }
    const values = name === "method" ? METHODS
      : name === "is" ? fields.find(each => each.field === "is")?.for.split(", ") ?? []
      : name === "status" ? ["2xx", "3xx", "4xx", "5xx"] : [];
    return values.filter(each => each.toLowerCase().startsWith(value.toLowerCase()) && each !== value)
      .map(each => ({ text: `${minus}${name}:${each}`, help: "" }));
  }

  function draw() {
    const all = document.activeElement === field ? offers() : [];
    list.replaceChildren(...all.map((offer, at) => make("li", {
      role: "option", id: `offer-${at}`, "aria-selected": String(at === chosen),
      onmousedown: event => { event.preventDefault(); take(offer); },
    }, make("code", {}, offer.text), make("span", {}, offer.help))));
    list.hidden = all.length === 0;
    field.setAttribute("aria-expanded", String(all.length > 0));
    if (chosen >= 0 && chosen < all.length) {
      field.setAttribute("aria-activedescendant", `offer-${chosen}`);
    } else {
      field.removeAttribute("aria-activedescendant");
    }
    return all;
  }

  function take(offer) {
    const { start, text } = term();
    const after = field.value.slice(start + text.length);
    field.value = field.value.slice(0, start) + offer.text + after;
    field.setSelectionRange(start + offer.text.length, start + offer.text.length);
    chosen = -1;
    draw();
    if (!offer.text.endsWith(":")) {
      apply();
    }
  }

  function apply() {
    clearTimeout(timer);
    changed();
  }

  field.addEventListener("input", () => {
    chosen = -1;
    draw();
    clearTimeout(timer);
    // Not each half of a word, and not a field without its value.
    if (!/:$/.test(field.value)) {
      timer = setTimeout(apply, 300);
    }
  });
  field.addEventListener("focus", draw);
  field.addEventListener("blur", () => { chosen = -1; draw(); });
  field.addEventListener("keydown", event => {
    const all = offers();
    if (event.key === "ArrowDown" || event.key === "ArrowUp") {
      event.preventDefault();
      const by = event.key === "ArrowDown" ? 1 : -1;
      chosen = all.length === 0 ? -1 : (chosen + by + all.length) % all.length;
      draw();
    } else if ((event.key === "Enter" || event.key === "Tab") && chosen >= 0 && all[chosen]) {
      event.preventDefault();
      take(all[chosen]);
    } else if (event.key === "Enter") {
      apply();
    } else if (event.key === "Escape") {
      list.hidden = true;
    }
  });
  return { leave() { clearTimeout(timer); } };
}
