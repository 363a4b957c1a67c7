// The balls in numbers: type a place in diamonds, mm or inches, choose the ball to be hit, take a ball off, put one there.

import { onBall, tint } from "./ball-name.js";
import { html, put, say } from "./dom.js";

const KEY = "fandle-units";

export function ballsPanel(element, units, tray, sizes, { onMove, onTarget, onRemove, onChoose, onAdd }) {
  const rows = new Map();
  let shown = null;
  const marks = units.options[0].value; // diamonds, or what a table without them has
  const kept = localStorage.getItem(KEY);
  units.value = kept in sizes ? kept : marks;
  const size = () => sizes[units.value];

  function number(text) {
    const value = Number(text.trim().replace(",", "."));
    return text.trim() === "" || !Number.isFinite(value) ? null : value;
  }

  function make(id) {
    const name = id === "cue" ? "cue ball" : `ball ${id}`;
    const x = html("input", { type: "text", inputmode: "decimal", "data-axis": "x" });
    const y = html("input", { type: "text", inputmode: "decimal", "data-axis": "y" });
    const hit = id === "cue" ? "" : html("input", { type: "radio", name: "target", "aria-label": `hit ${name}` });
    const off = id === "cue" ? "" : html("button", { type: "button", class: "off", "aria-label": `take ${name} off` }, "off");
    const row = html("tr", { "data-ball": id }, html("td", { class: "chip" }, id), html("td", {}, x), html("td", {}, y), html("td", {}, hit), html("td", {}, off));
    for (const input of [x, y]) {
      input.addEventListener("change", () => {
        const value = number(input.value);
        input.setAttribute("aria-invalid", String(value === null));
        if (value === null) return;
        // the other coordinate keeps every digit, not only those shown
        const ball = shown[0].balls.find((each) => each.id === id);
        onMove(id, input === x ? value / size()[0] : ball.x, input === y ? value / size()[1] : ball.y);
      });
      input.addEventListener("focus", () => onChoose(id));
    }
    if (hit) hit.addEventListener("change", () => onTarget(id));
    if (off) off.addEventListener("click", () => onRemove(id));
    return { row, x, y, hit, name };
  }

  units.addEventListener("change", () => {
    localStorage.setItem(KEY, units.value === marks ? "" : units.value);
    draw(...shown);
  });

  // Balls of the game that are not on the table, each a key that puts it there.
  function fillTray(absent) {
    const key = absent.join();
    if (tray.dataset.key === key) return;
    tray.dataset.key = key;
    tray.replaceChildren(...absent.map((id) => {
      const chip = html("button", { type: "button", class: ["btn tool tray-ball", tint(id) && `tint-${tint(id)}`].filter(Boolean).join(" "), "data-add": id, "aria-label": `Put ball ${id} on the table` }, onBall(id));
      chip.addEventListener("click", () => onAdd(id));
      return chip;
    }));
  }

  // axes: what the two directions are called as the drawing lies; absent: ids of the balls not on the table
  function draw({ balls, target }, chosen, axes, absent) {
    shown = [{ balls, target }, chosen, axes, absent];
    for (const head of element.parentElement.querySelectorAll("th[data-axis]")) say(head, axes.find((axis) => axis.id === head.dataset.axis).name);
    fillTray(absent);
    const [perX, perY, decimals] = size();
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
      const { row, x, y, hit, name } = rows.get(ball.id);
      for (const input of [x, y]) put(input, { "aria-label": `${name}, ${axes.find((axis) => axis.id === input.dataset.axis).name}` });
      for (const [input, text] of [[x, (ball.x * perX).toFixed(decimals)], [y, (ball.y * perY).toFixed(decimals)]]) {
        if (document.activeElement !== input && input.value !== text) input.value = text;
      }
      if (hit && hit.checked !== (ball.id === target)) hit.checked = ball.id === target;
      put(row, { "aria-selected": ball.id === chosen });
    }
  }

  return { draw, focus: (id) => rows.get(id)?.x.select() };
}
