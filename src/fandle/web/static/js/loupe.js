// A loupe above the finger while a ball is dragged by touch: what the finger covers, magnified.

const SIZE = 116; // px across
const ABOVE = 96; // px from the finger to the loupe's middle
const POWER = 2.6;

export function loupe(element, sheet) {
  return function follow(drag) {
    const touch = drag && drag.event.pointerType === "touch";
    element.toggleAttribute("hidden", !touch);
    if (!touch) return;
    const { clientX, clientY } = drag.event;
    const stage = element.parentElement.getBoundingClientRect();
    const [x, y] = sheet.seen(drag.event);
    const half = (SIZE * sheet.mmPerPixel()) / POWER / 2;
    element.setAttribute("viewBox", `${x - half} ${y - half} ${2 * half} ${2 * half}`);
    const left = Math.min(Math.max(clientX - stage.left - SIZE / 2, 0), stage.width - SIZE);
    const over = clientY - stage.top - ABOVE - SIZE / 2;
    element.style.left = `${left}px`;
    element.style.top = `${over < 0 ? clientY - stage.top + ABOVE - SIZE / 2 : over}px`;
  };
}
