// Runs the shot along the computed path, at real speed. The path and its times come from Python.

import { svg } from "./dom.js";

const SLOW = 0.25;

export function player(sheet, group, parts) {
  let film = [];
  let moments = [];
  let time = 0;
  let running = false;
  let started = 0;
  let slow = false;
  const still = window.matchMedia("(prefers-reduced-motion: reduce)");
  const end = () => (film.length ? film.at(-1)[0] + film.at(-1)[1] : 0);

  // Along one stretch the ball is uniformly accelerated, so its Bézier parameter is time.
  function place(t) {
    const piece = film.findLast((p) => p[0] <= t) ?? film[0];
    const s = Math.min(Math.max((t - piece[0]) / piece[1], 0), 1);
    const [, , ax, ay, bx, by, cx, cy] = piece;
    const mix = (a, b, c) => (1 - s) ** 2 * a + 2 * s * (1 - s) * b + s * s * c;
    return [mix(ax, bx, cx), mix(ay, by, cy)];
  }

  function show() {
    group.replaceChildren();
    parts.play.disabled = parts.step.disabled = parts.skip.disabled = film.length === 0;
    parts.play.textContent = running ? "Pause" : "Play it";
    parts.moment.textContent = "";
    if (!film.length || (time === 0 && !running)) return;
    const passed = moments.filter((m) => m.t <= time + 1e-9);
    for (const m of passed.slice(1)) group.append(svg("circle", { class: "moment-dot", cx: m.at[0], cy: m.at[1], r: 4 * sheet.mmPerPixel() }));
    const [x, y] = place(time);
    group.append(svg("circle", { class: "runner", cx: x, cy: y, r: sheet.radius }));
    parts.moment.textContent = passed.length ? passed.at(-1).text : "";
  }

  function frame(now) {
    if (!running) return;
    time = Math.min(time + ((now - started) / 1000) * (slow ? SLOW : 1), end());
    started = now;
    if (time >= end()) running = false;
    show();
    if (running) requestAnimationFrame(frame);
  }

  function toggle() {
    if (!film.length) return;
    if (time >= end()) time = 0;
    if (still.matches) {
      time = end(); // no motion wanted: the end at once, the moments by stepping
      show();
      return;
    }
    running = !running;
    started = performance.now();
    show();
    if (running) requestAnimationFrame(frame);
  }

  function step() {
    if (!film.length) return;
    running = false;
    if (time >= end()) time = 0;
    time = moments.find((m) => m.t > time + 1e-6)?.t ?? end();
    show();
  }

  function skip() {
    running = false;
    time = end();
    show();
  }

  parts.play.addEventListener("click", toggle);
  parts.step.addEventListener("click", step);
  parts.skip.addEventListener("click", skip);
  parts.slow.addEventListener("click", () => {
    slow = !slow;
    parts.slow.setAttribute("aria-pressed", String(slow));
  });

  function load(drawing) {
    film = drawing ? drawing.film : [];
    moments = drawing ? drawing.moments : [];
    running = false;
    time = 0;
    show();
  }

  return { load, toggle, step };
}
