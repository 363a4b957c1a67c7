// What can be done with one ball, or with a place on the cloth. Opened by a click, Enter or a long press.

import { html } from "./dom.js";

export function ballMenu(element, sheet, { onTarget, onRemove, onPosition, onSpot, onPick, onNext }) {
  let back = null; // where the focus was

  function close() {
    if (element.hidden) return;
    element.hidden = true;
    back?.focus({ preventScroll: true });
  }

  function key(text, act) {
    const button = html("button", { type: "button", class: "btn tool" }, text);
    button.addEventListener("click", () => {
      close();
      act();
    });
    return button;
  }

  function open(ball, target) {
    const keys = [key(ball.id === "cue" ? "To break from" : "On its spot", () => onSpot(ball.id)), key("Position…", () => onPosition(ball.id))];
    if (ball.id !== "cue") {
      keys.unshift(key("Remove", () => onRemove(ball.id)));
      if (ball.id !== target) keys.unshift(key("Hit this", () => onTarget(ball.id)), ...(onNext ? [key("Pot this next", () => onNext(ball.id))] : []));
    }
    keys.push(key("Move together", () => onPick(ball.id)));
    beside(keys, ball.x, ball.y);
  }

  // The keys beside a place on the cloth, inside the stage.
  function beside(keys, atX, atY) {
    back = document.activeElement;
    element.replaceChildren(...keys);
    element.hidden = false;
    const [x, y] = sheet.place(atX, atY);
    const px = sheet.mmPerPixel();
    const stage = element.parentElement.getBoundingClientRect();
    const drawn = sheet.element.getBoundingClientRect();
    const [left, top] = [(x - sheet.box.x) / px + drawn.left - stage.left, (y - sheet.box.y) / px + drawn.top - stage.top];
    const { offsetWidth: wide, offsetHeight: high } = element;
    element.style.left = `${Math.min(Math.max(left - wide / 2, 2), stage.width - wide - 2)}px`;
    element.style.top = `${top + 18 + high > stage.height ? top - 18 - high : top + 18}px`;
    keys[0].focus({ preventScroll: true });
  }

  element.addEventListener("keydown", (event) => {
    if (event.key !== "Escape") return;
    event.stopPropagation();
    close();
  });
  document.addEventListener("pointerdown", (event) => {
    if (!element.contains(event.target)) element.hidden = true;
  }, true);
  const at = (x, y, entries) => beside(entries.map(([text, act]) => key(text, act)), x, y);
  return { open, at, close };
}
