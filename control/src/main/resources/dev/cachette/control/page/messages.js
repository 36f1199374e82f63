// What Cachette has warned of, the latest first.
import { json } from "/page/api.js";
import { clock, make, refreshed } from "/page/dom.js";

export function showMessages(main) {
  const list = make("ol", { id: "messages" });
  refreshed(main, "message-count", list, async () => {
    const { messages } = await json("/messages");
    list.replaceChildren(...messages.reverse().map(({ at, text }) =>
      make("li", {}, make("time", { datetime: at }, clock(at)), make("pre", {}, text))));
    return messages.length === 0 ? "No warnings so far."
      : messages.length === 1 ? "1 warning" : `${messages.length} warnings`;
  });
  return { update() {} };
}
