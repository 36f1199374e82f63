// When a call reached the stages of its answer, as a bar and in words.
import { make, took } from "/page/dom.js";

const STAGES = [
  ["matched", "matched"],
  ["held", "held by a gate"],
  ["released", "released"],
  ["firstByte", "first byte"],
  ["answered", "answered"],
];
const WIDTH = 1000;

/** Makes the time line of a call; null if it has reached no stage yet. */
export function timeline(call) {
  const reached = STAGES.filter(([stage]) => call.times[stage] != null);
  if (reached.length === 0) {
    return null;
  }
  const end = Math.max(0.001, ...reached.map(([stage]) => call.times[stage]));
  let from = 0;
  const bars = reached.map(([stage]) => {
    const to = call.times[stage];
    const bar = rect(stage, from * WIDTH / end, (to - from) * WIDTH / end);
    from = to;
    return bar;
  });
  const words = reached.map(([stage, name]) => [name, took(call.times[stage])]);
  return make("figure", { class: "timeline", "aria-label": "Time line" }, drawing(bars),
    make("figcaption", {}, make("span", {}, "arrived 0 ms"),
      words.map(([name, time]) => make("span", {}, `${name} ${time}`))));
}

function drawing(bars) {
  const svg = document.createElementNS("http://www.w3.org/2000/svg", "svg");
  svg.setAttribute("viewBox", `0 0 ${WIDTH} 10`);
  svg.setAttribute("preserveAspectRatio", "none");
  svg.setAttribute("aria-hidden", "true");
  svg.append(...bars);
  return svg;
}

function rect(stage, x, width) {
  const rect = document.createElementNS("http://www.w3.org/2000/svg", "rect");
  for (const [name, value] of Object.entries({ class: `until-${stage}`, x, width, y: 0, height: 10 })) {
    rect.setAttribute(name, value);
  }
  return rect;
}
