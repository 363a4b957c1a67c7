// The two-shot test: two marks on the foot rail, dragged to where the balls met it. Python works out the squirt.

import { asker } from "./ask.js";

const STEP = 0.02; // diamonds an arrow key moves a mark

export function squirtTest(element, { url, table, onFound }) {
  const picture = element.querySelector("svg");
  const says = element.querySelector("output");
  const { width, diamond } = picture.dataset;
  const at = {};
  const marks = Object.fromEntries([...picture.querySelectorAll("[data-shot]")].map((mark) => [mark.dataset.shot, mark]));

  const ask = asker(url, (reply) => {
    says.textContent = `${reply.say[0].toUpperCase()}${reply.say.slice(1)}.`;
    if (reply.end_ratio) onFound(reply.end_ratio);
  }, (fault) => { says.textContent = `${fault.message[0].toUpperCase()}${fault.message.slice(1)}.`; });

  function put(shot, place, tell = true) {
    at[shot] = Math.min(Math.max(place, 0), 4);
    const mark = marks[shot];
    const y = width - at[shot] * diamond; // the near rail is below
    mark.setAttribute("transform", `translate(0 ${y})`);
    mark.setAttribute("aria-valuenow", at[shot].toFixed(2));
    mark.setAttribute("aria-valuetext", `${at[shot].toFixed(2)} diamonds from the near rail`);
    picture.querySelector(`[data-way="${shot}"]`).setAttribute("y2", y);
    if (tell) ask({ table: table(), left: at.left, right: at.right });
  }

  for (const [shot, mark] of Object.entries(marks)) {
    put(shot, Number(mark.dataset.at), false);
    mark.addEventListener("pointerdown", (event) => {
      mark.setPointerCapture(event.pointerId);
      event.preventDefault();
      mark.focus();
    });
    mark.addEventListener("pointermove", (event) => {
      if (!mark.hasPointerCapture(event.pointerId)) return;
      const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(picture.getScreenCTM().inverse());
      put(shot, (width - point.y) / diamond);
    });
    mark.addEventListener("keydown", (event) => {
      const way = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[event.key];
      if (!way) return;
      event.preventDefault();
      put(shot, at[shot] + way * STEP * (event.shiftKey ? 0.25 : 1));
    });
  }
}
