// What comes of the shot: where each moved ball stops, and how the first one is met.

import { onBall } from "./ball-name.js";
import { beside, READABLE } from "./balls-layer.js";
import { svg } from "./dom.js";

export function drawRests(sheet, group, labels, drawing) {
  group.replaceChildren();
  labels.ask("rests", []);
  if (!drawing) return;
  const px = sheet.mmPerPixel();
  const small = sheet.radius / px < READABLE;
  const asks = [];
  for (const { id, at } of drawing.rests) {
    const [x, y] = sheet.view(...at);
    const mark = svg("g", { class: "rest", transform: `translate(${x} ${y})`, "data-rest": id }, svg("circle", { r: sheet.radius }));
    if (id === "cue") mark.append(svg("path", { d: `M${-6 * px} 0H${6 * px}M0 ${-6 * px}V${6 * px}` }));
    else if (!small) {
      const text = svg("text", {}, onBall(id));
      text.style.fontSize = `${Math.min(10 * px, 1.5 * sheet.radius)}px`;
      mark.append(text);
    }
    else asks.push({ text: onBall(id), size: 14, weight: 500, name: "rest-name", rank: 9, at: beside(x, y, sheet.radius + 8 * px) });
    group.append(mark);
  }
  if (drawing.blow && !small) {
    const [x, y] = sheet.view(...drawing.ghost);
    const [ux, uy] = sheet.way(...drawing.blow.way);
    const text = drawing.blow.text;
    // words are wide: beside the contact they need more room than above it
    const off = (sheet.radius / px + 12) * px;
    const at = [0, 0.25, -0.25, 0.5, -0.5, 0.75, -0.75, 1].map((part) => {
      const turn = part * Math.PI;
      const [dx, dy] = [ux * Math.cos(turn) - uy * Math.sin(turn), ux * Math.sin(turn) + uy * Math.cos(turn)];
      return [x + dx * (off + text.length * 2.8 * px), y + dy * off];
    });
    asks.push({ text, size: 14, weight: 600, name: "blow", rank: 7, at });
  }
  labels.ask("rests", asks, drawing.rests.map(({ at }) => {
    const [x, y] = sheet.view(...at);
    return { x, y, r: sheet.radius };
  }));
}
