// The balls on the drawing: dragged by pointer, moved by arrow keys, chosen by a click.

import { onBall, tint } from "./ball-name.js";
import { put, say, svg } from "./dom.js";

const REACH = 22; // px: the nearest ball within this is meant, so that a thumb finds it
const STILL = 5; // px a pointer may slip and it was still a click
const LONG = 550; // ms: held as long as this without moving asks for the ball's menu
const SEGMENT = 0.1; // diamonds, one arrow key
const FINE = 0.01; // with Shift
export const READABLE = 5.8; // px of radius from which a number is read inside the ball
const STEPS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowDown: [0, 1], ArrowUp: [0, -1] };

/**
 * @param {any} sheet
 * @param {any} group
 * @param {any} labels
 * @param {{ onMove?: Function, onMoves?: Function, onChoose: Function, onMenu?: Function, onRemove?: Function, onDrag?: Function }} told
 *   onMove(id, x, y) for one ball, or onMoves([[id, x, y]…]) for all that go together; onChoose(id), onMenu(id),
 *   onRemove(id), onDrag({ id, event } | null)
 */
export function ballsLayer(sheet, group, labels, { onMove = () => {}, onMoves = (all) => all.forEach((one) => onMove(...one)), onChoose, onMenu = () => {}, onRemove = () => {}, onDrag = () => {} }) {
  const marks = new Map();
  const together = new Set(); // balls picked to be moved as one
  let dragged = null;

  // A ball moved so far (diamonds), and with it all that were picked together with it.
  function shift(id, dx, dy) {
    const ids = together.has(id) ? [...together] : [id];
    onMoves(ids.filter((each) => marks.has(each)).map((each) => {
      const { x, y } = marks.get(each).ball;
      return [each, ...sheet.kept(x + dx, y + dy)];
    }));
  }

  function pick(id) {
    if (!together.delete(id)) together.add(id);
    marks.get(id)?.mark.classList.toggle("picked", together.has(id));
  }

  const inMiddle = (ball) => sheet.place(ball.x, ball.y);
  // The ball meant by a pointer: the nearest one in reach.
  function under(event) {
    const [x, y] = sheet.seen(event);
    const reach = Math.max(REACH * sheet.mmPerPixel(), sheet.radius);
    let best = null;
    for (const { ball, mark } of marks.values()) {
      if (mark.getAttribute("display") === "none") continue;
      const [bx, by] = inMiddle(ball);
      const away = Math.hypot(bx - x, by - y);
      if (away <= reach && (!best || away < best.away)) best = { ball, mark, away };
    }
    return best;
  }

  function down(event) {
    if (!event.isPrimary) {
      drop(); // a second finger: this is no drag
      return;
    }
    if (event.button || event.target.closest("[data-own-pointer]")) return;
    const found = under(event);
    if (!found) return;
    event.preventDefault();
    event.stopPropagation();
    found.mark.focus({ preventScroll: true });
    sheet.element.setPointerCapture(event.pointerId);
    const [x, y] = sheet.under(event);
    const { id } = found.ball;
    if (event.shiftKey) {
      pick(id);
      return;
    }
    dragged = { id, from: [event.clientX, event.clientY], moved: false, offset: [found.ball.x - x, found.ball.y - y], timer: setTimeout(() => { if (dragged && !dragged.moved) menu(); }, LONG) };
    onChoose(id);
  }

  function move(event) {
    if (!dragged || !event.isPrimary) return;
    if (!dragged.moved && Math.hypot(event.clientX - dragged.from[0], event.clientY - dragged.from[1]) < STILL) return;
    dragged.moved = true;
    const [x, y] = sheet.under(event);
    const { ball } = marks.get(dragged.id);
    shift(dragged.id, x + dragged.offset[0] - ball.x, y + dragged.offset[1] - ball.y);
    onDrag({ id: dragged.id, event });
  }

  function drop() {
    if (!dragged) return;
    clearTimeout(dragged.timer);
    dragged = null;
    onDrag(null);
  }

  function menu() {
    const { id } = dragged;
    drop();
    onMenu(id);
  }

  sheet.element.addEventListener("pointerdown", down);
  sheet.element.addEventListener("pointermove", move);
  sheet.element.addEventListener("pointerup", () => (dragged && !dragged.moved ? menu() : drop()));
  sheet.element.addEventListener("pointercancel", drop);

  function key(event, id) {
    const way = STEPS[event.key];
    if (event.key === "Enter" || event.key === " ") onMenu(id);
    else if (event.key === "Delete" || event.key === "Backspace") onRemove(id);
    else if (way) {
      const step = event.shiftKey ? FINE : SEGMENT;
      const [dx, dy] = sheet.step(...way);
      shift(id, dx * step, dy * step);
    } else return;
    event.preventDefault();
  }

  function make(ball) {
    const mark = svg("g", { tabindex: "0", role: "button", "data-ball": ball.id },
      svg("circle", { class: "ring", r: sheet.radius + 16 }), svg("circle", { class: "disc", r: sheet.radius }), svg("text", {}));
    mark.addEventListener("keydown", (event) => key(event, ball.id));
    mark.addEventListener("focus", () => onChoose(ball.id));
    return mark;
  }

  function name(ball, target) {
    if (ball.id === "cue") return "Cue ball";
    const lettered = tint(ball.id) ? onBall(ball.id) + ", " : "";
    return `${lettered}Ball ${ball.id}${ball.id === target ? ", to be hit" : ""}`;
  }

  function draw(balls, target, chosen, wrong) {
    const seen = new Set(balls.map((ball) => ball.id));
    for (const [id, { mark }] of marks) {
      if (seen.has(id)) continue;
      mark.remove();
      marks.delete(id);
      together.delete(id);
    }
    const px = sheet.mmPerPixel();
    const small = sheet.radius / px < READABLE;
    const asks = [];
    for (const ball of balls) {
      if (!marks.has(ball.id)) {
        marks.set(ball.id, { mark: make(ball) });
        group.append(marks.get(ball.id).mark);
      }
      const entry = marks.get(ball.id);
      entry.ball = ball;
      const { mark } = entry;
      const [x, y] = inMiddle(ball);
      const kind = ball.id === "cue" ? "cue" : ball.id === target ? "target" : "";
      put(mark, {
        transform: `translate(${x} ${y})`,
        class: ["ball", kind, tint(ball.id) && `tint-${tint(ball.id)}`, ball.id === chosen && "chosen", together.has(ball.id) && "picked", wrong.has(ball.id) && "wrong"].filter(Boolean).join(" "),
        "aria-label": `${name(ball, target)} at ${ball.x.toFixed(2)}, ${ball.y.toFixed(2)}; arrow keys move it, Enter opens its menu`,
      });
      const text = mark.querySelector("text");
      say(text, small ? "" : onBall(ball.id));
      text.style.fontSize = `${Math.min(10.5 * px, 1.5 * sheet.radius)}px`;
      // on a small drawing the number stands beside its ball, where it can be read
      const main = kind === "target" || ball.id === chosen;
      if (small && onBall(ball.id)) asks.push({ text: onBall(ball.id), size: 14, weight: main ? 700 : 600, name: "ball-name", rank: main ? 3 : 6, must: main, at: beside(x, y, sheet.radius + 8 * px) });
    }
    labels.ask("balls", asks, balls.map((ball) => ({ x: inMiddle(ball)[0], y: inMiddle(ball)[1], r: sheet.radius })));
  }

  return { draw, pick, under };
}

// Places round a point, above first.
export function beside(x, y, off, [ux, uy] = [0, -1]) {
  const found = [];
  for (const turn of [0, 1, -1, 2, -2, 3, -3, 4]) {
    const [c, s] = [Math.cos((turn * Math.PI) / 4), Math.sin((turn * Math.PI) / 4)];
    found.push([x + off * (ux * c - uy * s), y + off * (ux * s + uy * c)]);
  }
  return found;
}
