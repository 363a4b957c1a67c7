// Runs the shot along the computed paths, at real speed, every ball. Paths and times come from Python.

import { onBall } from "./ball-name.js";
import { say, svg } from "./dom.js";

const SLOW = 0.25;

// Along one stretch a ball is uniformly accelerated, so its Bézier parameter is time.
function place(way, t) {
  const piece = way.findLast((p) => p[0] <= t) ?? way[0];
  const s = Math.min(Math.max((t - piece[0]) / piece[1], 0), 1);
  const [, , ax, ay, bx, by, cx, cy] = piece;
  const mix = (a, b, c) => (1 - s) ** 2 * a + 2 * s * (1 - s) * b + s * s * c;
  return [mix(ax, bx, cx), mix(ay, by, cy)];
}

export function player(sheet, group, balls, parts) {
  let ways = {};
  let moments = [];
  let told = "";
  let time = 0;
  let end = 0;
  let running = false;
  let started = 0;
  let slow = false;
  const still = window.matchMedia("(prefers-reduced-motion: reduce)");
  const empty = () => end === 0;

  function show() {
    if (group.firstChild) group.replaceChildren();
    parts.play.disabled = parts.step.disabled = parts.skip.disabled = empty();
    say(parts.play, running ? "Pause" : "Play it");
    const idle = empty() || (time === 0 && !running);
    sheet.element.classList.toggle("running-film", !idle);
    if (idle) {
      say(parts.moment, told);
      return;
    }
    const passed = moments.filter((m) => m.t <= time + 1e-9);
    for (const m of passed.slice(1)) {
      const [x, y] = sheet.view(...m.at);
      group.append(svg("circle", { class: "moment-dot", cx: x, cy: y, r: 3 * sheet.mmPerPixel() }));
    }
    for (const [id, way] of Object.entries(ways)) {
      const [x, y] = sheet.view(...place(way, time));
      group.append(svg("circle", { class: id === "cue" ? "runner" : "runner other", cx: x, cy: y, r: sheet.radius }));
      if (id !== "cue") group.append(svg("text", { class: "runner-text", x, y }, onBall(id)));
    }
    say(parts.moment, time >= end ? told : passed.at(-1)?.text ?? "");
  }

  function frame(now) {
    if (!running) return;
    time = Math.min(time + ((now - started) / 1000) * (slow ? SLOW : 1), end);
    started = now;
    if (time >= end) running = false;
    show();
    if (running) requestAnimationFrame(frame);
  }

  function toggle() {
    if (empty()) return;
    if (still.matches) {
      step(); // no motion wanted: from moment to moment
      return;
    }
    if (time >= end) time = 0;
    running = !running;
    started = performance.now();
    show();
    if (running) requestAnimationFrame(frame);
  }

  function step() {
    if (empty()) return;
    running = false;
    if (time >= end) time = 0;
    time = moments.find((m) => m.t > time + 1e-6)?.t ?? end;
    show();
  }

  function skip() {
    running = false;
    time = end;
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
    ways = drawing ? Object.fromEntries(Object.entries(drawing.films).filter(([, way]) => way.length)) : {};
    moments = drawing ? drawing.moments : [];
    told = drawing ? drawing.told : "";
    end = Object.keys(ways).length ? drawing.lasts : 0;
    running = false;
    time = 0;
    for (const ball of balls.children) ball.toggleAttribute("data-moves", ball.dataset.ball in ways);
    show();
  }

  return { load, toggle, step };
}
