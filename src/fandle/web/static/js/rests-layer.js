// What comes of the shot: where each moved ball stops, and how the first one is met.

import { onBall } from "./ball-name.js";
import { svg } from "./dom.js";

export function drawRests(sheet, group, drawing) {
  group.replaceChildren();
  if (!drawing) return;
  const px = sheet.mmPerPixel();
  const small = sheet.radius / px < 7.5;
  for (const { id, at: [x, y] } of drawing.rests) {
    const mark = svg("g", { class: "rest", transform: `translate(${x} ${y})`, "data-rest": id }, svg("circle", { r: sheet.radius }));
    mark.append(svg("text", small ? { class: "outside", y: -sheet.radius - 7 * px } : {}, onBall(id)));
    if (id === "cue") mark.append(svg("path", { d: `M${-6 * px} 0H${6 * px}M0 ${-6 * px}V${6 * px}` }));
    group.append(mark);
  }
  if (!drawing.blow) return;
  const [[x, y], [ux, uy]] = [drawing.ghost, drawing.blow.way];
  const off = sheet.radius + 9 * px;
  const anchor = ux > 0.35 ? "start" : ux < -0.35 ? "end" : "middle";
  group.append(svg("text", { class: "blow", x: x + ux * off, y: y + uy * off, "text-anchor": anchor }, drawing.blow.text));
}
