// A map of the bed: from where the cue ball hits by a system's own count. It is told column by column, can be stopped,
// and on a table that was checked it can be seen as it was before.

import { svg } from "./dom.js";
import { answered } from "./ndjson.js";

const FULL = 0.5; // ball diameters beside the target: a hit nearer than this is a full one
const KINDS = ["hit", "thin", "miss"];

const kindOf = (balls) => (balls < FULL ? "hit" : balls < 1 ? "thin" : "miss");

export function holdsMap({ button, before, progress, says }, sheet, group, url, question) {
  let work = null; // what is being told; an older one is stopped
  let grid = null;
  let parts = {}; // the path of each kind, mm
  let shares = {}; // how much of the table hits, now and before the check

  function stop() {
    work?.abort();
    work = null;
    progress.hidden = true;
  }

  function clear() {
    stop();
    grid = null;
    shares = {};
    group.replaceChildren();
    says.textContent = "";
    before.hidden = true;
    for (const each of [button, before]) each.setAttribute("aria-pressed", "false");
    button.textContent = "Where on the table does it work?";
  }

  function begin() {
    parts = Object.fromEntries(KINDS.map((kind) => [kind, svg("path", { class: `holds-${kind}`, d: "" })]));
    group.replaceChildren(...KINDS.map((kind) => parts[kind]));
  }

  // Cells of one kind that lie above one another are one piece.
  function column(at, cells) {
    const half = { x: ((grid.xs[1] - grid.xs[0]) / 2) * sheet.dx, y: ((grid.ys[1] - grid.ys[0]) / 2) * sheet.dy };
    const x = grid.xs[at] * sheet.dx;
    const pieces = { hit: "", thin: "", miss: "" };
    for (let low = 0; low < cells.length; low += 1) {
      if (cells[low] === null) continue;
      const kind = kindOf(cells[low][1]);
      let high = low;
      while (cells[high + 1] && kindOf(cells[high + 1][1]) === kind) high += 1;
      const [top, bottom] = [grid.ys[high] * sheet.dy + half.y, grid.ys[low] * sheet.dy - half.y].map((y) => sheet.width - y);
      pieces[kind] += `M${x - half.x} ${top}H${x + half.x}V${bottom}H${x - half.x}Z`;
      low = high;
    }
    for (const kind of KINDS) if (pieces[kind]) parts[kind].setAttribute("d", parts[kind].getAttribute("d") + pieces[kind]);
  }

  function tell(past) {
    const { counted, hits } = shares[past ? "before" : "now"];
    const other = shares[past ? "now" : "before"];
    const part = (share) => `${Math.round(100 * share)} %`;
    const beside = other ? ` ${past ? "Since the check" : "Before the check"}: ${part(other.hits)}.` : "";
    says.textContent = counted === 0
      ? "It counts from nowhere for this ball: move the ball to be hit."
      : `It can be counted on ${part(counted)} of the table, and hits on ${part(hits)} of that.${beside} Dark: a full hit. Light: a thin one. Hatched: a miss. Bare: not usable.`;
  }

  async function start(past) {
    stop();
    const mine = new AbortController();
    work = mine;
    begin();
    button.textContent = "Stop";
    button.setAttribute("aria-pressed", "true");
    before.setAttribute("aria-pressed", String(past));
    says.textContent = "";
    progress.hidden = false;
    progress.value = 0;
    progress.max = 1;
    try {
      for await (const line of answered(url, { ...question(), before: past }, mine.signal)) {
        if (mine !== work) return;
        if (line.xs) grid = { xs: line.xs, ys: line.ys };
        progress.value = line.progress;
        (line.cells ?? []).forEach((cells, k) => column(line.from + k, cells));
        if ("hits" in line) {
          shares[past ? "before" : "now"] = line;
          before.hidden = !line.checked;
        }
      }
      stop();
      button.textContent = "Hide map";
      tell(past);
    } catch (fault) {
      if (mine !== work) return; // stopped
      clear();
      says.textContent = fault.message;
    }
  }

  button.addEventListener("click", () => (button.getAttribute("aria-pressed") === "true" ? clear() : start(false)));
  before.addEventListener("click", () => start(before.getAttribute("aria-pressed") !== "true"));
  return { clear };
}
