// The list of balls: type a place, choose the ball to be hit, take a ball off.

import { html } from "./dom.js";

export function ballsPanel(element, { onMove, onTarget, onRemove, onChoose }) {
  const rows = new Map();

  function number(text) {
    const value = Number(text.trim().replace(",", "."));
    return text.trim() === "" || !Number.isFinite(value) ? null : value;
  }

  function make(id) {
    const name = id === "cue" ? "cue ball" : `ball ${id}`;
    const x = html("input", { type: "text", inputmode: "decimal", "aria-label": `${name}, diamonds from the head rail` });
    const y = html("input", { type: "text", inputmode: "decimal", "aria-label": `${name}, diamonds from the near rail` });
    const hit = id === "cue" ? "" : html("input", { type: "radio", name: "target", "aria-label": `hit ${name}` });
    const off = id === "cue" ? "" : html("button", { type: "button", class: "off", "aria-label": `take ${name} off` }, "off");
    const row = html("tr", { "data-ball": id }, html("td", { class: "chip" }, id), html("td", {}, x), html("td", {}, y), html("td", {}, hit), html("td", {}, off));
    for (const input of [x, y]) {
      input.addEventListener("change", () => {
        const place = [number(x.value), number(y.value)];
        input.setAttribute("aria-invalid", String(number(input.value) === null));
        if (!place.includes(null)) onMove(id, ...place);
      });
      input.addEventListener("focus", () => onChoose(id));
    }
    if (hit) hit.addEventListener("change", () => onTarget(id));
    if (off) off.addEventListener("click", () => onRemove(id));
    return { row, x, y, hit };
  }

  return function draw(balls, target, chosen) {
    const seen = new Set(balls.map((ball) => ball.id));
    for (const [id, entry] of rows) {
      if (!seen.has(id)) {
        entry.row.remove();
        rows.delete(id);
      }
    }
    for (const ball of balls) {
      if (!rows.has(ball.id)) {
        rows.set(ball.id, make(ball.id));
        element.append(rows.get(ball.id).row);
      }
      const { row, x, y, hit } = rows.get(ball.id);
      if (document.activeElement !== x) x.value = ball.x.toFixed(2);
      if (document.activeElement !== y) y.value = ball.y.toFixed(2);
      if (hit) hit.checked = ball.id === target;
      row.setAttribute("aria-selected", String(ball.id === chosen));
    }
  };
}
