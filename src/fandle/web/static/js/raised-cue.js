// The raised cue: its elevation with a picture, how the ball bends, and what softer and harder do to that.

import { html, say } from "./dom.js";

const LONG = 150; // of the drawing, as the shaft is drawn
const TIP = [134, 46]; // where it meets the ball

export function raisedCue(element, onChange) {
  const find = (id) => element.querySelector(`#${id}`);
  const slider = find("elevation");
  const paces = ["-1", "1"].map((by) => document.querySelector(`[data-step="speed"][data-by="${by}"]`)); // the ends of the speed
  element.hidden = false;
  slider.addEventListener("input", () => onChange(Number(slider.value)));

  return {
    show({ elevation, curve }) {
      if (document.activeElement !== slider || !slider.matches(":active")) slider.value = elevation;
      say(find("elevation-out"), elevation ? `${Math.round(elevation)}°` : "level");
      slider.setAttribute("aria-valuetext", elevation ? `${Math.round(elevation)} degrees` : "level");
      const turn = (elevation * Math.PI) / 180;
      find("cue-line").setAttribute("d", `M${TIP[0]} ${TIP[1]}L${TIP[0] - LONG * Math.cos(turn)} ${TIP[1] - LONG * Math.sin(turn)}`);
      paces.forEach((key, k) => key.setAttribute("title", (k ? curve?.harder : curve?.softer) ?? ""));
      const rows = curve ? [curve.softer, curve.text, curve.harder] : [];
      find("bends").replaceChildren(...rows.filter(Boolean).map((text) => html(text === curve.text ? "b" : "span", {}, text)),
        curve?.mind ? html("p", { class: "mind" }, curve.mind) : "");
    },
  };
}
