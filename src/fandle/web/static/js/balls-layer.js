// The balls on the drawing: dragged by pointer, moved by arrow keys.

import { onBall, tint } from "./ball-name.js";
import { put, say, svg } from "./dom.js";

const GRIP = 22; // px, so that a thumb finds it
const SEGMENT = 0.1; // diamonds, one arrow key
const FINE = 0.01; // with Shift
const STEPS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowDown: [0, -1], ArrowUp: [0, 1] };

export function ballsLayer(sheet, group, { onMove, onChoose }) {
  let dragged = null;
  const marks = new Map();

  function make(ball) {
    const mark = svg("g", { tabindex: "0", role: "button", "data-ball": ball.id },
      svg("circle", { class: "grip" }), svg("circle", { class: "ring", r: sheet.radius + 16 }),
      svg("circle", { class: "disc", r: sheet.radius }),
      svg("text", {}));
    mark.addEventListener("pointerdown", (event) => {
      event.preventDefault();
      mark.focus({ preventScroll: true });
      mark.setPointerCapture(event.pointerId);
      const [x, y] = sheet.under(event);
      const at = marks.get(ball.id).ball;
      dragged = { id: ball.id, offset: [at.x - x, at.y - y] };
      onChoose(ball.id);
    });
    mark.addEventListener("pointermove", (event) => {
      if (!dragged || dragged.id !== ball.id) return;
      const [x, y] = sheet.under(event);
      onMove(ball.id, ...sheet.kept(x + dragged.offset[0], y + dragged.offset[1]));
    });
    for (const end of ["pointerup", "pointercancel"]) mark.addEventListener(end, () => { dragged = null; });
    mark.addEventListener("keydown", (event) => {
      const way = STEPS[event.key];
      if (!way) return;
      event.preventDefault();
      const step = event.shiftKey ? FINE : SEGMENT;
      const at = marks.get(ball.id).ball;
      onMove(ball.id, ...sheet.kept(at.x + way[0] * step, at.y + way[1] * step));
    });
    mark.addEventListener("focus", () => onChoose(ball.id));
    return mark;
  }

  function draw(balls, target, chosen, wrong) {
    const seen = new Set(balls.map((ball) => ball.id));
    for (const [id, { mark }] of marks) {
      if (!seen.has(id)) {
        mark.remove();
        marks.delete(id);
      }
    }
    for (const ball of balls) {
      if (!marks.has(ball.id)) {
        const mark = make(ball);
        group.append(mark);
        marks.set(ball.id, { mark });
      }
      const entry = marks.get(ball.id);
      entry.ball = ball;
      const { mark } = entry;
      const [x, y] = sheet.place(ball.x, ball.y);
      const kind = ball.id === "cue" ? "cue" : ball.id === target ? "target" : "";
      const name = ball.id === "cue" ? "Cue ball" : `${tint(ball.id) ? `${onBall(ball.id)}, ` : ""}Ball ${ball.id}${kind === "target" ? ", to be hit" : ""}`;
      put(mark, {
        transform: `translate(${x} ${y})`,
        class: ["ball", kind, tint(ball.id) && `tint-${tint(ball.id)}`, ball.id === chosen && "chosen", wrong.has(ball.id) && "wrong"].filter(Boolean).join(" "),
        "aria-label": `${name} at ${ball.x.toFixed(2)}, ${ball.y.toFixed(2)}; arrow keys move it`,
      });
      // on a small drawing the number stands above its ball, where it can be read
      const small = sheet.radius / sheet.mmPerPixel() < 7.5;
      const text = mark.querySelector("text");
      say(text, onBall(ball.id));
      put(text, { class: small ? "outside" : "", y: small ? -sheet.radius - 8 * sheet.mmPerPixel() : 0 });
      put(mark.querySelector(".grip"), { r: Math.max(GRIP * sheet.mmPerPixel(), sheet.radius) });
    }
  }

  return { draw };
}
