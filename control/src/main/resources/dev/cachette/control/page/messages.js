// What Cachette has warned of, the latest first.
import { json } from "/page/api.js";
import { clock, make } from "/page/dom.js";

export function showMessages(main) {
  const told = make("p", { role: "status", id: "message-count" });
  const list = make("ol", { id: "messages" });
  main.append(
    make("div", { class: "tools" }, make("button", { type: "button", onclick: load }, "Refresh"), told),
    make("div", { class: "list scrolls" }, list));

  async function load() {
    try {
      const { messages } = await json("/messages");
      told.textContent = messages.length === 0 ? "No warnings so far."
        : messages.length === 1 ? "1 warning" : `${messages.length} warnings`;
      list.replaceChildren(...messages.reverse().map(({ at, text }) =>
        make("li", {}, make("time", { datetime: at }, clock(at)), make("pre", {}, text))));
    } catch (failed) {
      told.textContent = failed.message;
      list.replaceChildren();
    }
  }

  load();
  return { update() {} };
}
