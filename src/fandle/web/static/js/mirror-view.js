// The mirror view: the table unfolded over its rails; natural straight, played nearly so. Drawn, not computed.

import { onBall } from "./ball-name.js";
import { svg } from "./dom.js";

const WIDE = 258; // px, about what the box gives it
const HIGH = 340;

export function mirrorView(mirror, { target }) {
  const perPixel = Math.max(mirror.wide / WIDE, mirror.high / HIGH);
  const element = svg("svg", { class: "mirror", viewBox: mirror.view, role: "img", "aria-label": "The table unfolded across the rails: the natural line is straight" });
  element.style.setProperty("--unit", `${perPixel}px`);
  mirror.tables.forEach((table, index) => {
    element.append(svg("polygon", { class: index === 0 ? "tile first" : "tile", points: table.outline }));
    const last = index === mirror.tables.length - 1;
    for (const ball of table.balls) {
      const main = (index === 0 && ball.id === "cue") || (last && ball.id === target);
      element.append(svg("circle", { class: main ? "ball-image main" : "ball-image", cx: ball.at[0], cy: ball.at[1], r: mirror.radius * (main ? 1.3 : 1) }));
      if (ball.id !== "cue") element.append(svg("text", { class: main ? "main" : "", x: ball.at[0], y: ball.at[1] - mirror.radius * 2.4 }, onBall(ball.id)));
    }
  });
  for (const joint of mirror.joints) {
    element.append(
      svg("path", { class: "joint", d: `M${joint.from}L${joint.to}` }),
      svg("circle", { class: "turn", cx: joint.turn[0], cy: joint.turn[1], r: mirror.radius }));
    element.append(svg("text", { class: "joint-name", x: (joint.from[0] + joint.to[0]) / 2, y: (joint.from[1] + joint.to[1]) / 2 }, joint.rail));
  }
  element.append(svg("path", { class: "natural", d: mirror.natural }), svg("path", { class: "shot", d: mirror.played }));
  return element;
}
