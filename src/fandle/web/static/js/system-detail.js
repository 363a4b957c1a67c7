// What one system says of a layout: its mark, its sum, where it lands, beside the mirror and the played line.

import { html, sentence } from "./dom.js";

export function systemDetail(system, keys) {
  const steps = system.steps.slice(0, -1).map((step) => html("p", { class: "step" }, step));
  return [
    html("div", {}, html("p", { class: "big", id: "mark" }, system.mark), html("p", {}, `${system.label}, ${system.frame_words}`),
      html("p", { class: "lands" }, html("b", { id: "where" }, system.verdict.where)), html("p", {}, system.verdict.what)),
    html("div", {},
      html("h2", {}, system.title), ...steps,
      html("p", { class: "step" }, system.lead, html("b", {}, system.result)),
      html("p", {}, system.say),
      html("p", {}, `Played ${system.played}. `, system.in_the_way && sentence(system.in_the_way) + " ", html("b", { id: "twin" }, system.twin)),
      html("p", {}, system.adjust, system.squirt && ` ${system.squirt}`),
      html("div", { class: "keys" }, html("a", { class: "btn tool strong", href: system.href }, "Play it in the Table room"), ...keys)),
  ];
}
