// A printed page says where the balls lie by tape, whatever the page shows: millimetres and inches from two cushion edges.

import { html } from "./dom.js";

export function printSheet(element, sizes, layout) {
  const side = (at, axis) => `${(at * sizes.mm[axis]).toFixed(0)} mm (${(at * sizes.inches[axis]).toFixed(1)} in)`;
  window.addEventListener("beforeprint", () => {
    const rows = layout().balls.map((ball) => html("li", {}, html("b", {}, ball.id === "cue" ? "Cue ball" : `Ball ${ball.id}`), `: ${side(ball.x, 0)} from the head, ${side(ball.y, 1)} from the near rail`));
    element.replaceChildren(html("ul", {}, ...rows), html("p", {}, location.href));
  });
}
