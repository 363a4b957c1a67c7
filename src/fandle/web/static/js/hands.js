// Measuring with hands and cue, step by step on the drawing. The steps come from Python; here they are gone through.

import { html, svg } from "./dom.js";

const WORDS = { finger: "finger", shaft: "cue shaft", span: "span", sight: "line of sight", ghost: "ball", mark: "mark" };

function thing(sheet, { kind, d, points }, now) {
  const name = `hand hand-${kind}${now ? " now" : ""}`;
  const [x, y] = points[0];
  const px = sheet.mmPerPixel();
  if (kind === "finger") return svg("circle", { class: name, cx: x, cy: y, r: 7 * px });
  if (kind === "ghost") return svg("circle", { class: name, cx: x, cy: y, r: sheet.radius });
  if (kind === "mark") return svg("path", { class: name, d: `M${x - 9 * px} ${y}h${18 * px}M${x} ${y - 9 * px}v${18 * px}` });
  const line = svg("path", { class: name, d });
  if (kind === "span") {
    line.setAttribute("marker-start", "url(#end-tick)");
    line.setAttribute("marker-end", "url(#end-tick)");
  }
  return line;
}

export function handsPanel(element, sheet, group, onOpen) {
  let steps = [];
  let at = null; // which step is shown; null while nobody measures

  function go(to) {
    at = to === null ? null : Math.min(Math.max(to, 0), steps.length - 1);
    sheet.include(at === null ? [] : steps.flatMap((step) => step.things).flatMap((each) => each.points));
    draw();
    onOpen(at !== null);
  }

  function button(id, text, to, off = false) {
    const key = html("button", { type: "button", class: "btn tool", id, disabled: off }, text);
    key.addEventListener("click", () => go(to));
    return key;
  }

  function draw() {
    group.replaceChildren();
    const held = element.contains(document.activeElement) ? document.activeElement.id : "";
    element.hidden = steps.length === 0;
    if (at === null) {
      element.replaceChildren(button("hands-start", "Do it at the table, step by step", 0));
    } else {
      steps.slice(0, at + 1).forEach((step, k) => group.append(...step.things.map((each) => thing(sheet, each, k === at))));
      const step = steps[at];
      const kinds = [...new Set(step.things.map((each) => WORDS[each.kind]))].join(", ");
      element.replaceChildren(
        html("div", { class: "step-card", role: "group", tabindex: "0", id: "step-card", "aria-label": "Steps with hands and cue; arrow keys go on and back, Escape ends" },
          html("p", { class: "step-number" }, String(at + 1), html("small", {}, ` of ${steps.length}`)),
          html("div", { "aria-live": "polite" }, html("p", { class: "step-do" }, step.do),
            html("p", { class: "step-keep" }, step.keep ? `Keep ${step.keep} unchanged.` : `On the drawing: ${kinds}.`))),
        html("div", { class: "keys" }, button("hands-back", "Back", at - 1, at === 0),
          button("hands-on", "Next step", at + 1, at === steps.length - 1), button("hands-end", "Done", null)));
    }
    if (held) (element.querySelector(`#${held}:not(:disabled)`) ?? element.querySelector("#step-card, #hands-start"))?.focus();
  }

  element.addEventListener("keydown", (event) => {
    const to = { ArrowRight: at + 1, ArrowLeft: at - 1, Home: 0, End: steps.length - 1, Escape: null }[event.key];
    if (at === null || to === undefined) return;
    event.preventDefault();
    go(to);
  });

  // The same steps on a moved layout stay where they are.
  return {
    load(next) {
      const same = at !== null && next.length === steps.length;
      steps = next;
      if (same) go(at);
      else if (at !== null) go(null);
      else draw();
    },
  };
}
