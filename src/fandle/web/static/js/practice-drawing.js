// The drawing of the Practice room: the balls of a shot, its paths, its contacts, the circle to stop in.

import { onBall, tint } from "./ball-name.js";
import { READABLE } from "./balls-layer.js";
import { html, svg } from "./dom.js";
import { setPath } from "./paths-layer.js";

const find = (id) => document.getElementById(id);
const FEW = 2; // balls that need no numbers

export function practiceDrawing(sheet) {
  const numbered = (all) => all.length > FEW && sheet.radius / sheet.mmPerPixel() > READABLE;

  function balls(all, aim = all[1]?.id) {
    find("layer-balls").replaceChildren(...all.map((ball, k) => {
      const [x, y] = sheet.view(ball.x, ball.y);
      const name = k === 0 ? "ball cue" : ball.id === aim ? "ball target" : "ball";
      const label = svg("text", {}, numbered(all) ? onBall(ball.id) : "");
      return svg("g", { class: tint(ball.id) ? `${name} tint-${tint(ball.id)}` : name, transform: `translate(${x} ${y})` }, svg("circle", { class: "disc", r: sheet.radius }), label);
    }));
    find("tape").replaceChildren(...all.map((ball) => html("li", {}, ball.where)));
  }

  function shot(one) {
    balls(one.balls, one.aim);
    setPath("shot", one.path);
    setPath("after", one.runs);
    const marks = one.marks.map(({ rail, at }) => {
      const [cx, cy] = sheet.onRail(rail, at, -sheet.radius);
      return svg("circle", { class: "contact", cx, cy, r: 5 * sheet.mmPerPixel() });
    });
    if (one.circle) {
      const [cx, cy] = sheet.view(one.circle.x, one.circle.y);
      marks.push(svg("circle", { class: "goal-circle", cx, cy, r: one.circle.r }));
    }
    find("layer-guess").replaceChildren(...marks);
  }

  function clear() {
    setPath("after", "");
    find("tape").replaceChildren();
  }

  return { balls, shot, clear };
}
