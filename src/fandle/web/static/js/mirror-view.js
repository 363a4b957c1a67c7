// The mirror view: the table unfolded over its rails; natural straight from left to right, played nearly so. Drawn, not computed.

import { onBall } from "./ball-name.js";
import { svg } from "./dom.js";

export function mirrorView(mirror, { target, width }) {
  const unit = mirror.wide / Math.max(width, 280); // mm that make a pixel
  const element = svg("svg", { class: "mirror", viewBox: mirror.view, role: "img", "aria-label": "The table unfolded across its rails: the perfect-mirror line is straight" });
  element.style.setProperty("--unit", `${unit}px`);
  const text = (name, x, y, words) => svg("text", { class: name, x, y }, words);
  const names = [];
  mirror.tables.forEach((table, index) => {
    element.append(svg("polygon", { class: index === 0 ? "tile first" : "tile", points: table.outline }));
    names.push(text("tile-name", ...table.middle, table.name));
    const last = index === mirror.tables.length - 1;
    for (const ball of table.balls) {
      const main = (index === 0 && ball.id === "cue") || (last && ball.id === target);
      element.append(svg("circle", { class: main ? "ball-image main" : "ball-image", cx: ball.at[0], cy: ball.at[1], r: Math.max(mirror.radius * (main ? 1.3 : 1), 4 * unit) }));
      if (ball.id !== "cue") element.append(text(main ? "main" : "", ball.at[0], ball.at[1] - mirror.radius - 9 * unit, onBall(ball.id)));
    }
  });
  for (const joint of mirror.joints) {
    element.append(
      svg("path", { class: "joint", d: `M${joint.from}L${joint.to}` }),
      svg("circle", { class: "turn", cx: joint.turn[0], cy: joint.turn[1], r: mirror.radius }));
  }
  element.append(svg("path", { class: "natural", d: mirror.natural }), svg("path", { class: "shot", d: mirror.played }), ...names);
  return element;
}
