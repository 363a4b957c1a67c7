// Every word and figure on the drawing is set here: clear of pockets, balls, marks and of each other, and inside.
//
// Whoever draws asks for a label with the places it may stand at, the best first. `set` goes through them by rank; one
// that finds no room is moved a little further (when it must be told) or left out.

import { svg } from "./dom.js";

const PAD = 1.5; // px kept free around a label
const HIGH = 0.82; // of the type's size: figures and capitals, without what hangs below
const RING = 7; // px between the rings on which room is looked for
const RINGS = 16;

const widths = new Map();
let measure = null;

// Width of a text in px.
function wide(text, size, weight) {
  const key = `${weight} ${text}`;
  if (!widths.has(key)) {
    measure ??= document.createElement("canvas").getContext("2d");
    measure.font = `${weight} 100px "Plex Condensed"`;
    widths.set(key, measure.measureText(text).width / 100);
  }
  return widths.get(key) * size;
}
document.fonts?.ready.then(() => widths.clear());

const apart = (a, b) => a.right <= b.left || b.right <= a.left || a.bottom <= b.top || b.bottom <= a.top;

// Does a circle reach into a box?
function inside(box, { x, y, r }) {
  const dx = x - Math.min(Math.max(x, box.left), box.right);
  const dy = y - Math.min(Math.max(y, box.top), box.bottom);
  return dx * dx + dy * dy < r * r;
}

// asks: { text, size, weight, name, at: [[x, y]…] in mm as seen, rank, must, data }
export function labels(sheet, group) {
  const layers = new Map(); // what each drawer asks for
  const pockets = []; // circles, mm

  for (const pocket of sheet.element.querySelectorAll(".pocket")) {
    pockets.push({ at: [Number(pocket.getAttribute("cx")), Number(pocket.getAttribute("cy"))], r: Number(pocket.getAttribute("r")) });
  }
  const sights = [...sheet.element.querySelectorAll(".sight")].map((mark) => mark.dataset.at.split(",").map(Number));

  // One drawer's labels, and what nobody else may write on: circles (mm) and boxes (mm: left, top, right, bottom).
  function ask(drawer, asks, circles = [], boxes = []) {
    layers.set(drawer, { asks, circles, boxes });
  }

  function set() {
    const px = sheet.mmPerPixel();
    const seen = { left: sheet.box.x / px, top: sheet.box.y / px, right: (sheet.box.x + sheet.box.width) / px, bottom: (sheet.box.y + sheet.box.height) / px };
    const all = [...layers.values()];
    const circles = pockets.map(({ at, r }) => {
      const [x, y] = sheet.view(...at);
      return { x: x / px, y: y / px, r: r / px };
    });
    for (const { x, y, r } of all.flatMap((layer) => layer.circles)) circles.push({ x: x / px, y: y / px, r: r / px });
    const boxes = all.flatMap((layer) => layer.boxes).map(([left, top, right, bottom]) => ({ left: left / px, top: top / px, right: right / px, bottom: bottom / px }));
    for (const [x, y] of sights) {
      const [sx, sy] = sheet.view(x, y).map((value) => value / px);
      boxes.push({ left: sx - 15 / px, right: sx + 15 / px, top: sy - 15 / px, bottom: sy + 15 / px });
    }
    const asks = all.flatMap((layer) => layer.asks).sort((a, b) => a.rank - b.rank);
    group.replaceChildren(...asks.map((label) => written(label, px, seen, circles, boxes)).filter(Boolean));
  }

  function written(label, px, seen, circles, boxes) {
    const half = [wide(label.text, label.size, label.weight) / 2 + PAD, (label.size * HIGH) / 2 + PAD];
    const boxAt = ([x, y]) => ({ left: x - half[0], right: x + half[0], top: y - half[1], bottom: y + half[1] });
    const free = (place) => {
      const box = boxAt(place);
      return box.left >= seen.left && box.right <= seen.right && box.top >= seen.top && box.bottom <= seen.bottom &&
        boxes.every((other) => apart(box, other)) && !circles.some((circle) => inside(box, circle));
    };
    const places = label.at.map(([x, y]) => [x / px, y / px]);
    const place = places.find(free) ?? (label.must ? around(places[0], free) : null);
    if (!place) return null;
    boxes.push(boxAt(place));
    const text = svg("text", { class: `label ${label.name}`, x: place[0] * px, y: place[1] * px, ...label.data }, label.text);
    text.style.fontSize = `${label.size * px}px`;
    text.style.fontWeight = label.weight;
    return text;
  }

  // The nearest free place on rings around where it was wanted.
  function around([x, y], free) {
    for (let ring = 1; ring <= RINGS; ring += 1) {
      const steps = 8 + 4 * ring;
      for (let k = 0; k < steps; k += 1) {
        const turn = (2 * Math.PI * k) / steps;
        const place = [x + ring * RING * Math.cos(turn), y + ring * RING * Math.sin(turn)];
        if (free(place)) return place;
      }
    }
    return null;
  }

  return { ask, set };
}
