// The rest that can be said of an attempt: pot, in-off, second try, left safe, the further contacts, where the cue ball
// stopped. All of it optional; `say(kind, change, pause)` sends it.

import { html, put, svg } from "./dom.js";

const FLAGS = { potted: true, in_off: true, left_safe: true, try_number: 2 };

export function noteRest(element, sheet, group, say) {
  const flags = [...element.querySelectorAll("[data-flag]")];
  const contacts = element.querySelector("#contacts");
  const stopKey = element.querySelector("#stop-here");
  let stop = null; // where the mark of the stop stands, mm
  let place = null; // where the engine has the cue ball stop: the mark begins there

  for (const key of flags) {
    key.addEventListener("click", () => {
      const on = key.getAttribute("aria-pressed") !== "true";
      put(key, { "aria-pressed": String(on) });
      const { flag } = key.dataset;
      say(flag, { [flag]: flag === "try_number" ? (on ? 2 : 1) : on }, 0);
    });
  }

  function sayContacts() {
    const touched = [...contacts.querySelectorAll("input")].filter((field) => field.value !== "" && field.validity.valid)
      .map((field) => ({ rail: field.dataset.rail, at: Number(field.value) }));
    say("touched", { touched }, 400);
  }

  function drawStop() {
    group.replaceChildren();
    if (!stop) return;
    group.append(svg("g", { class: "stop-mark", transform: `translate(${stop.join(" ")})` },
      svg("circle", { class: "grip", r: 22 * sheet.mmPerPixel() }), svg("circle", { class: "disc", r: sheet.radius })));
  }
  stopKey.addEventListener("click", () => {
    stop = stop ? null : place ?? [sheet.length / 2, sheet.width / 2];
    put(stopKey, { "aria-pressed": String(Boolean(stop)) });
    drawStop();
    if (stop) sayStop(0);
  });
  const sayStop = (pause) => say("stopped", { stopped_x: stop[0] / sheet.dx, stopped_y: (sheet.width - stop[1]) / sheet.dy }, pause);
  group.addEventListener("pointerdown", (event) => {
    event.preventDefault();
    group.setPointerCapture(event.pointerId);
  });
  group.addEventListener("pointermove", (event) => {
    if (!group.hasPointerCapture(event.pointerId)) return;
    const [x, y] = sheet.point(event);
    stop = [Math.min(Math.max(x, 0), sheet.length), Math.min(Math.max(y, 0), sheet.width)];
    drawStop();
  });
  group.addEventListener("pointerup", () => sayStop(0));

  // What this shot can be told about: its further rails, and where its cue ball is expected to stop.
  function load(chosen) {
    const rails = chosen.answer.object_contact ? [] : chosen.answer.cushions.slice(1, chosen.answer.rails.length);
    const named = chosen.helps.filter(({ kind }) => kind === "contact");
    contacts.replaceChildren(...rails.map(({ rail, at }, index) => {
      const field = html("input", { class: "form-control", type: "number", step: "0.05", min: "-1", max: "9", placeholder: at.toFixed(2), "data-rail": rail, "aria-label": `${index ? "third" : "second"} contact` });
      field.addEventListener("input", sayContacts);
      return html("label", {}, named[index].name, field);
    }));
    place = chosen.drawing.rests.find(({ id }) => id === "cue")?.at ?? null;
  }

  function show(noted) {
    for (const key of flags) put(key, { "aria-pressed": String(noted[key.dataset.flag] === FLAGS[key.dataset.flag]) });
  }

  function clear() {
    stop = null;
    put(stopKey, { "aria-pressed": "false" });
    for (const key of flags) put(key, { "aria-pressed": "false" });
    for (const field of contacts.querySelectorAll("input")) field.value = "";
    if (group.firstChild) group.replaceChildren();
  }
  return { load, show, clear };
}
