// The calls, newest first. Only the rows in view are drawn, however many there are.
import { events, json, done, Problem } from "/page/api.js";
import { clock, make, size, took } from "/page/dom.js";
import { address, change } from "/page/page.js";
import { showCall } from "/page/call.js";
import { completing } from "/page/filter.js";

const ROW = 30;
const COLUMNS = ["Time", "Method", "URL", "Answer", "Stub", "Test", "Took", "Size", "Protocol"];

export function showCalls(main) {
  const byNumber = new Map();
  let order = [];
  let waiting = [];
  let paused = false;
  let filter = null;
  let open = null;
  let focused = null;
  let stopped = new AbortController();
  let drawn = false;

  const field = make("input", { id: "filter", type: "text", autocomplete: "off", spellcheck: "false",
    placeholder: "is:unexpected  status:5xx  host:*.example  header:x-desk=7" });
  const suggestions = make("ul", { id: "suggestions", role: "listbox", "aria-label": "Terms", hidden: true });
  const problem = make("p", { id: "filter-problem", role: "alert" });
  const pause = make("button", { type: "button", "aria-pressed": "false", onclick: () => {
    paused = !paused;
    pause.setAttribute("aria-pressed", String(paused));
    pause.textContent = paused ? "Resume" : "Pause";
    if (!paused) {
      add(waiting.splice(0));
    }
    count();
  } }, "Pause");
  const clear = make("button", { type: "button", onclick: () => done("/calls", { method: "DELETE" }) }, "Clear");
  const counted = make("p", { id: "count", role: "status" });
  const rows = make("div", { role: "rowgroup", class: "rows" });
  const grid = make("div", { role: "grid", id: "calls", "aria-label": "Calls, newest first", tabindex: "0" },
    make("div", { role: "row", class: "row head" },
      COLUMNS.map(name => make("span", { role: "columnheader", class: name.toLowerCase() }, name))),
    rows);
  const empty = make("p", { class: "empty" });
  const details = make("section", { id: "call", "aria-label": "One call", tabindex: "-1", hidden: true });
  main.append(
    make("div", { class: "tools" },
      make("div", { class: "filter" }, make("label", { for: "filter" }, "Filter"), field, suggestions),
      pause, clear, counted),
    problem,
    make("div", { class: "split" }, make("div", { class: "list" }, grid, empty), details));

  function count() {
    const calls = order.length === 1 ? "1 call" : `${order.length.toLocaleString("en")} calls`;
    counted.textContent = calls + (filter ? " selected" : "")
      + (paused && waiting.length ? `, ${waiting.length.toLocaleString("en")} more waiting` : "");
    empty.textContent = order.length > 0 ? ""
      : filter ? "No call matches the filter. The next one that does is shown here as soon as it arrives."
      : "No calls yet. Each one is shown here as soon as it arrives.";
    grid.setAttribute("aria-rowcount", String(order.length + 1));
  }

  function add(calls) {
    let fresh = 0;
    let late = false;
    for (const call of calls) {
      if (!byNumber.has(call.number)) {
        late ||= call.number < order.at(-1);
        order.push(call.number);
        fresh++;
      }
      byNumber.set(call.number, call);
    }
    if (late) {
      order.sort((one, other) => one - other);
    }
    if (fresh > 0) {
      // Whoever has scrolled down reads on at the same place.
      if (grid.scrollTop > ROW) {
        rows.style.height = `${order.length * ROW}px`;
        grid.scrollTop += fresh * ROW;
      }
    }
    if (open != null && calls.some(call => call.number === open)) {
      showCall(details, open, close);
    }
    redraw();
  }

  function redraw() {
    if (!drawn) {
      drawn = true;
      requestAnimationFrame(draw);
    }
  }

  function draw() {
    drawn = false;
    count();
    rows.style.height = `${order.length * ROW}px`;
    const first = Math.max(0, Math.floor(grid.scrollTop / ROW) - 5);
    const last = Math.min(order.length, first + Math.ceil(grid.clientHeight / ROW) + 12);
    const visible = [];
    for (let at = first; at < last; at++) {
      const above = at > 0 ? byNumber.get(order[order.length - at]) : null;
      visible.push(row(byNumber.get(order[order.length - 1 - at]), at, above));
    }
    rows.replaceChildren(...visible);
    const active = focused != null && visible.find(each => each.id === `call-${focused}`);
    if (active) {
      grid.setAttribute("aria-activedescendant", active.id);
    } else {
      grid.removeAttribute("aria-activedescendant");
    }
  }

  function row(call, at, above) {
    const cell = (name, ...content) => make("span", { role: "gridcell", class: name }, ...content);
    const kind = call.unexpected || call.failure ? "bad"
      : typeof call.answer === "string" ? "fault"
      : call.answer >= 400 ? "error" : call.answer == null ? "going" : "good";
    const url = place(call.url);
    const element = make("div", {
      role: "row", id: `call-${call.number}`, class: `row ${kind}`, "aria-rowindex": at + 2,
      "aria-selected": String(call.number === open), onclick: () => { focused = call.number; choose(call.number); },
    },
      cell("time", clock(call.arrivedAt)),
      cell("method", call.method),
      cell("url", make("span", { class: "host" }, url.host), make("span", {}, url.rest)),
      cell("answer", call.unexpected ? "unexpected" : String(call.answer ?? call.state)),
      cell("stub", call.stub ?? ""),
      cell("test", above != null && above.test === call.test ? "" : call.test ?? ""),
      cell("took", took(call.durationMillis)),
      cell("size", call.size ? size(call.size) : ""),
      cell("protocol", call.protocol));
    element.style.top = `${at * ROW}px`;
    if (above != null && above.test !== call.test) {
      element.classList.add("next-test");
    }
    if (call.number === focused) {
      element.classList.add("focused");
    }
    return element;
  }

  function choose(number) {
    change({ call: String(number) });
  }

  function close() {
    change({ call: null });
    grid.focus();
  }

  function move(by) {
    if (order.length === 0) {
      return;
    }
    const now = focused == null ? -1 : order.length - 1 - order.indexOf(focused);
    const at = Math.max(0, Math.min(order.length - 1, focused == null ? 0 : now + by));
    focused = order[order.length - 1 - at];
    const top = at * ROW;
    if (top < grid.scrollTop) {
      grid.scrollTop = top;
    } else if (top + 2 * ROW > grid.scrollTop + grid.clientHeight) {
      grid.scrollTop = top + 2 * ROW - grid.clientHeight;
    }
    draw();
  }

  grid.addEventListener("scroll", redraw);
  grid.addEventListener("keydown", event => {
    const page = Math.max(1, Math.floor(grid.clientHeight / ROW) - 2);
    const moves = { ArrowDown: 1, ArrowUp: -1, PageDown: page, PageUp: -page, Home: -Infinity, End: Infinity };
    if (event.key in moves) {
      event.preventDefault();
      move(moves[event.key]);
    } else if (event.key === "Enter" && focused != null) {
      choose(focused);
    }
  });
  details.addEventListener("keydown", event => {
    if (event.key === "Escape") {
      close();
    }
  });
  new ResizeObserver(redraw).observe(grid);

  const apply = completing(field, suggestions, () => change({ filter: field.value.trim() }));

  /** Reads calls as long as this filter is set, again and again if the stream ends. */
  async function follow() {
    stopped.abort();
    stopped = new AbortController();
    const { signal } = stopped;
    byNumber.clear();
    order = [];
    waiting = [];
    focused = null;
    redraw();
    while (!signal.aborted) {
      try {
        const after = order.length ? order[order.length - 1] : 0;
        await events(`/calls/events?after=${after}&filter=${encodeURIComponent(filter)}`, signal, (name, data) => {
          if (signal.aborted) {
            return;
          }
          problem.textContent = "";
          connection("live");
          if (name === "cleared") {
            byNumber.clear();
            order = [];
            waiting = [];
            redraw();
          } else if (name === "calls" && paused) {
            waiting.push(...JSON.parse(data));
            count();
          } else if (name === "calls") {
            add(JSON.parse(data));
          }
        });
      } catch (failed) {
        if (signal.aborted) {
          return;
        }
        if (failed instanceof Problem && failed.status === 400) {
          problem.textContent = failed.message;
          return;
        }
        connection("not connected; trying again");
      }
      await new Promise(wait => setTimeout(wait, 1000));
    }
  }

  // A browser keeps pages that were left, with their streams, and opens only a few to one host.
  const left = () => stopped.abort();
  const back = event => event.persisted && follow();
  window.addEventListener("pagehide", left);
  window.addEventListener("pageshow", back);

  return {
    update(parameters) {
      const wanted = parameters.get("filter") ?? "";
      if (wanted !== filter) {
        filter = wanted;
        if (document.activeElement !== field) {
          field.value = wanted;
        }
        follow();
      }
      const number = parameters.get("call");
      const now = /^[0-9]+$/.test(number ?? "") ? Number(number) : null;
      if (now !== open) {
        open = now;
        details.hidden = open == null;
        if (open != null) {
          showCall(details, open, close).then(() => details.focus());
        }
        redraw();
      }
    },
    leave() {
      window.removeEventListener("pagehide", left);
      window.removeEventListener("pageshow", back);
      stopped.abort();
      apply.leave();
    },
  };
}

/** Splits a URL; callers may have sent one that is none. */
function place(url) {
  const [, host, rest] = /^[a-z]+:\/\/([^/?#]*)(.*)$/is.exec(url) ?? ["", "", url];
  return { host, rest };
}

function connection(text) {
  const place = document.getElementById("connection");
  if (place.textContent !== text) {
    place.textContent = text;
    place.dataset.live = String(text === "live");
  }
}
