// Elements are made from text, never from markup: what callers sent stays text.

/** Makes an element: attributes, "on..." listeners, and children; null children are left out. */
export function make(name, attributes = {}, ...children) {
  const element = document.createElement(name);
  for (const [key, value] of Object.entries(attributes)) {
    if (key.startsWith("on")) {
      element.addEventListener(key.slice(2), value);
    } else if (value === true) {
      element.setAttribute(key, "");
    } else if (value !== false && value != null) {
      element.setAttribute(key, value);
    }
  }
  element.append(...children.flat().filter(child => child != null));
  return element;
}

/** Copies a text, and says so on the button for a moment. */
export function copyButton(label, text) {
  const button = make("button", { type: "button", onclick: async () => {
    const copied = await text();
    try {
      await navigator.clipboard.writeText(copied);
      button.textContent = "Copied";
    } catch (refused) {
      button.textContent = "The browser refuses to copy";
    }
    setTimeout(() => { button.textContent = label; }, 1500);
  } }, label);
  return button;
}

/** Shows a list with a button to load it again; `load` fills it, and returns what is said of it. */
export function refreshed(main, id, list, load) {
  const told = make("p", { role: "status", id });
  const again = async () => {
    try {
      told.textContent = await load();
    } catch (failed) {
      told.textContent = failed.message;
      list.replaceChildren();
    }
  };
  main.append(
    make("div", { class: "tools" }, make("button", { type: "button", onclick: again }, "Refresh"), told),
    make("div", { class: "list scrolls" }, list));
  again();
}

/** A mark in a body, where a stub requires something else. */
export function difference(what = "differs") {
  return make("strong", { class: "differs" }, what);
}

/** Bytes in the unit that a person reads. */
export function size(bytes) {
  return bytes < 1024 ? `${bytes} B`
    : bytes < 1024 * 1024 ? `${(bytes / 1024).toFixed(1)} KiB`
    : `${(bytes / 1024 / 1024).toFixed(1)} MiB`;
}

/** A time of day, where the reader is. */
export function clock(instant) {
  const at = new Date(instant);
  const two = number => String(number).padStart(2, "0");
  return `${two(at.getHours())}:${two(at.getMinutes())}:${two(at.getSeconds())}.`
    + String(at.getMilliseconds()).padStart(3, "0");
}

/** A time of milliseconds. */
export function took(millis) {
  return millis == null ? "" : millis < 10 ? `${millis.toFixed(1)} ms`
    : millis < 10000 ? `${Math.round(millis)} ms` : `${(millis / 1000).toFixed(1)} s`;
}
