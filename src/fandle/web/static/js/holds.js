// A map of the bed: from where the cue ball hits by a system's count. Asked for column by column, so that it
// shows its progress and can be stopped.

import { Fault, post } from "./ask.js";
import { svg } from "./dom.js";

const SIZE = 7; // px, a full hit

export function holdsMap({ button, progress, says }, sheet, group, url, question) {
  let run = 0; // a number for each map: an older one that is still asked for stops
  let spots = [];
  let drawnPx = 0;

  function clear() {
    run += 1;
    spots = [];
    group.replaceChildren();
    progress.hidden = true;
    says.textContent = "";
    button.textContent = "Where on the table does it work?";
    button.setAttribute("aria-pressed", "false");
  }

  function dot([x, y, off, balls]) {
    const px = sheet.mmPerPixel();
    if (off === null) return svg("circle", { class: "holds-none", cx: x, cy: y, r: 1.2 * px });
    if (balls < 1) return svg("circle", { class: "holds-hit", cx: x, cy: y, r: (2.5 + (SIZE - 2.5) * (1 - balls)) * px });
    return svg("circle", { class: "holds-miss", cx: x, cy: y, r: 3.4 * px });
  }

  function draw() {
    drawnPx = sheet.mmPerPixel();
    group.replaceChildren(...spots.map(dot));
  }

  function tell() {
    const counted = spots.filter((spot) => spot[2] !== null);
    const hits = counted.filter((spot) => spot[3] < 1).length;
    const part = (n, of) => `${Math.round((100 * n) / Math.max(of, 1))} %`;
    says.textContent = counted.length === 0
      ? "It counts from nowhere for this ball: move the ball to be hit."
      : `With the cue ball there it can be counted on ${part(counted.length, spots.length)} of the table, and hits on ${part(hits, counted.length)} of that. Filled, larger is fuller: a hit. Ring: a miss. Dot: not usable.`;
  }

  async function start() {
    clear();
    const mine = run;
    button.textContent = "Stop";
    button.setAttribute("aria-pressed", "true");
    progress.hidden = false;
    progress.value = 0;
    try {
      for (let at = 0, of = 1; at < of; at += 1) {
        const reply = await post(url, JSON.stringify({ ...question(), at }));
        if (mine !== run) return;
        of = reply.of;
        progress.max = of;
        progress.value = at + 1;
        spots.push(...reply.spots);
        draw();
      }
      progress.hidden = true;
      button.textContent = "Hide map";
      tell();
    } catch (fault) {
      if (!(fault instanceof Fault)) throw fault;
      clear();
      says.textContent = fault.message;
    }
  }

  button.addEventListener("click", () => (button.getAttribute("aria-pressed") === "true" ? clear() : start()));
  // Dots keep their size on screen.
  return { clear, redraw: () => { if (spots.length && drawnPx !== sheet.mmPerPixel()) draw(); } };
}
