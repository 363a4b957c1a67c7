// Where the cue ball is to stop, and where not: circles on the cloth, tapped, dragged, sized by keys.

import { put, svg } from "./dom.js";

const RADIUS = 0.5; // diamonds of a fresh circle
const STEP = 0.1; // one arrow key, one key of size
const LEAST = 0.1;
const MOST = 4;
const STILL = 5; // px a pointer may slip and it was still a tap
const NAMES = { zones: "here", away: "not here" };
const KEYS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowDown: [0, 1], ArrowUp: [0, -1] };

// state: how it stands now; onChange: the lists of circles that are new; menu: what can be done at a place; isBall: is a
// ball meant by a pointer?
export function zoneLayer(sheet, group, menu, { state, onChange, isBall }) {
  const kept = (zone) => ({ x: hold(zone.x, 0, 8), y: hold(zone.y, 0, 4), r: hold(zone.r, LEAST, MOST) });
  const hold = (value, low, high) => Math.min(Math.max(Math.round(value * 100) / 100, low), high);
  const changed = (name, index, zone) => onChange({ [name]: state()[name].map((each, k) => (k === index ? kept(zone) : each)) });
  const removed = (name, index) => onChange({ [name]: state()[name].filter((_, k) => k !== index) });
  const add = (name, x, y) => onChange({ [name]: [...state()[name], kept({ x, y, r: RADIUS })] });

  // A tap on the bare cloth asks what is to happen there.
  let down = null;
  sheet.element.addEventListener("pointerdown", (event) => {
    const bare = event.isPrimary && !event.button && !event.target.closest("[data-pocket], [data-own-pointer], .rest, .ball") && !isBall(event);
    down = bare ? [event.clientX, event.clientY] : null;
  });
  sheet.element.addEventListener("pointerup", (event) => {
    if (!down || Math.hypot(event.clientX - down[0], event.clientY - down[1]) > STILL) return;
    down = null;
    const [x, y] = sheet.under(event);
    if (x < 0 || x > 8 || y < 0 || y > 4) return;
    menu.at(x, y, [["Leave it here", () => add("zones", x, y)], ["Not here", () => add("away", x, y)]]);
  });

  function options(name, index) {
    const zone = state()[name][index];
    menu.at(zone.x, zone.y, [
      ["Larger", () => changed(name, index, { ...zone, r: zone.r * 1.3 })], ["Smaller", () => changed(name, index, { ...zone, r: zone.r / 1.3 })],
      ["Remove", () => removed(name, index)],
    ]);
  }

  function key(event, name, index) {
    const zone = state()[name][index];
    const way = KEYS[event.key];
    if (event.key === "Delete" || event.key === "Backspace") removed(name, index);
    else if (event.key === "Enter" || event.key === " ") options(name, index);
    else if (event.key === "+" || event.key === "-") changed(name, index, { ...zone, r: zone.r + (event.key === "+" ? STEP : -STEP) });
    else if (way) {
      const [dx, dy] = sheet.step(...way);
      changed(name, index, { ...zone, x: zone.x + dx * STEP, y: zone.y + dy * STEP });
    } else return;
    event.preventDefault();
    group.querySelector(`[data-zone="${name} ${index}"]`)?.focus({ preventScroll: true });
  }

  function drag(mark, name, index) {
    let from = null;
    const at = (event) => {
      const [x, y] = sheet.under(event);
      const zone = state()[name][index];
      return kept({ ...zone, x: zone.x + x - from.x, y: zone.y + y - from.y });
    };
    mark.addEventListener("pointerdown", (event) => {
      if (!event.isPrimary || isBall(event)) return;
      event.preventDefault();
      mark.setPointerCapture(event.pointerId);
      const [x, y] = sheet.under(event);
      from = { x, y, at: [event.clientX, event.clientY] };
    });
    mark.addEventListener("pointermove", (event) => from && put(mark, { transform: moved(at(event)) }));
    mark.addEventListener("pointercancel", () => { from = null; });
    mark.addEventListener("pointerup", (event) => {
      if (!from) return;
      const zone = at(event);
      const still = Math.hypot(event.clientX - from.at[0], event.clientY - from.at[1]) <= STILL;
      from = null;
      if (still) options(name, index);
      else changed(name, index, zone);
    });
  }

  const moved = (zone) => `translate(${sheet.place(zone.x, zone.y).join(" ")})`;

  function draw() {
    const size = 13 * sheet.mmPerPixel();
    group.replaceChildren(...Object.entries(NAMES).flatMap(([name, says]) => state()[name].map((zone, index) => {
      const r = zone.r * sheet.dx;
      const mark = svg("g", { class: `zone ${name}`, tabindex: "0", role: "button", "data-own-pointer": "", "data-zone": `${name} ${index}`, transform: moved(zone),
        "aria-label": `Cue ball ${name === "zones" ? "to stop" : "not to stop"} at ${zone.x.toFixed(2)}, ${zone.y.toFixed(2)}, ${zone.r.toFixed(2)} around; arrow keys move it, plus and minus size it, Delete removes it` },
      svg("circle", { r }), ...(name === "away" ? [svg("path", { d: `M${-r * 0.7} ${-r * 0.7}L${r * 0.7} ${r * 0.7}` })] : []), svg("text", { y: r - 0.6 * size, "font-size": size }, says));
      mark.addEventListener("keydown", (event) => key(event, name, index));
      drag(mark, name, index);
      return mark;
    })));
  }

  return { draw, add };
}
