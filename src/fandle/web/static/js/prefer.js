// Which system to prefer where, as one picture: a small table each for one, two and three rails, in pieces.

import { html, svg } from "./dom.js";
import { answered } from "./ndjson.js";

const TINTS = 6; // of the pieces; the name on each says which it is
const LEAST = 0.01; // of the table: a smaller piece is not listed
const percent = (share) => `${Math.round(100 * share)} %`;

export function preferPicture({ button, progress, says, box }, sheet, url, question) {
  let work = null;

  function clear() {
    work?.abort();
    work = null;
    progress.hidden = true;
    box.replaceChildren();
    says.textContent = "";
    button.textContent = "Which system where?";
    button.setAttribute("aria-pressed", "false");
  }

  function drawn(picture, balls) {
    const room = 30;
    const view = `${-room} ${-room} ${sheet.length + 2 * room} ${sheet.width + 2 * room}`;
    const table = svg("svg", { class: "prefer", viewBox: view, role: "img", "aria-label": `${picture.title}: ${words(picture)}` },
      svg("rect", { class: "cap", x: -room, y: -room, width: sheet.length + 2 * room, height: sheet.width + 2 * room }),
      svg("rect", { class: "bed", x: 0, y: 0, width: sheet.length, height: sheet.width }));
    picture.pieces.forEach((piece, k) => table.append(svg("path", { class: `piece tint-${k % TINTS}`, d: piece.path })));
    for (const piece of picture.pieces) {
      for (const [x, y] of piece.names) {
        const end = x > sheet.length * 0.75 ? "end" : x < sheet.length * 0.25 ? "start" : "middle";
        table.append(svg("text", { class: "piece-name", x, y: Math.min(Math.max(y, 90), sheet.width - 40), "text-anchor": end }, piece.title));
      }
    }
    for (const [x, y] of balls) table.append(svg("circle", { class: "thumb-target", cx: x, cy: y, r: sheet.radius * 1.4 }));
    return html("figure", {}, html("figcaption", {}, picture.title), table, list(picture));
  }

  const words = (picture) => picture.pieces.map((piece) => `${piece.title} ${percent(piece.share)}`).join(", ") || "none hits";

  function list(picture) {
    const rows = picture.pieces.filter((piece) => piece.share >= LEAST).map((piece, k) => html("li", {}, html("span", { class: `key tint-${k % TINTS}` }), html("a", { href: piece.href }, piece.title), ` ${percent(piece.share)}`));
    if (picture.none > 0.005) rows.push(html("li", { class: "soft" }, `none of them hits: ${percent(picture.none)}`));
    return html("ul", {}, ...rows);
  }

  async function start() {
    clear();
    const mine = new AbortController();
    work = mine;
    button.textContent = "Stop";
    button.setAttribute("aria-pressed", "true");
    progress.hidden = false;
    progress.max = 1;
    progress.value = 0;
    try {
      const { body, target } = question();
      for await (const line of answered(url, body, mine.signal)) {
        if (mine !== work) return;
        progress.value = line.progress;
        if (line.pictures) box.replaceChildren(...line.pictures.map((picture) => drawn(picture, target)));
      }
      progress.hidden = true;
      button.textContent = "Hide pictures";
      says.textContent = "For a cue ball anywhere on the table: the system whose own sum lands nearest to this ball. Bare: none hits.";
    } catch (fault) {
      if (mine !== work) return; // stopped
      clear();
      says.textContent = fault.message;
    }
  }

  button.addEventListener("click", () => (button.getAttribute("aria-pressed") === "true" ? clear() : start()));
  return { clear };
}
