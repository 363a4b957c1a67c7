// What one school says of a layout: its mark, its sum, where it lands, beside the mirror and the played line.

import { html, sentence } from "./dom.js";

export function schoolDetail(school, keys) {
  const steps = school.steps.slice(0, -1).map((step) => html("p", { class: "step" }, step));
  return [
    html("div", {}, html("p", { class: "big", id: "mark" }, school.mark), html("p", {}, `${school.rails[0]} rail, ${school.frame_words}`),
      html("p", { class: "lands" }, "lands ", html("b", { id: "where" }, school.verdict.where)), html("p", {}, school.verdict.what)),
    html("div", {},
      html("h2", {}, school.title), ...steps,
      html("p", { class: "step" }, school.lead, html("b", {}, school.result)),
      html("p", {}, school.say),
      html("p", {}, `Played ${school.played}. ${school.in_the_way && `${sentence(school.in_the_way)} `}`, html("b", { id: "twin" }, school.twin)),
      html("p", {}, school.adjust),
      html("div", { class: "keys" }, html("a", { class: "btn tool strong", href: school.href }, "Play it in the Table room"), ...keys)),
  ];
}
