// Where the balls stop over the player's own errors: soft shapes that hold half of the draws, for the line drawn.

import { svg } from "./dom.js";

export function drawEnds(sheet, group, line) {
  group.replaceChildren();
  for (const { id, at, tip, b } of line?.ends ?? []) {
    const [x, y] = sheet.view(...at);
    const [tx, ty] = sheet.view(...tip);
    const [a, turn] = [Math.hypot(tx - x, ty - y), (Math.atan2(ty - y, tx - x) * 180) / Math.PI];
    const half = svg("ellipse", { rx: a, ry: b });
    group.append(svg("g", { class: "end", "data-end": id, transform: `translate(${x} ${y}) rotate(${turn})` }, half));
  }
}
