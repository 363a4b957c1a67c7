// The panels beside the drawing. Each is a function of the server's answer; none keeps state.

import { html, sentence } from "./dom.js";

export function drawTask(element, headline, verb) {
  element.replaceChildren();
  if (!headline.ball) {
    element.append(headline.way);
    return;
  }
  element.append(verb, html("b", {}, headline.ball), html("i", {}, "·"), headline.way);
}

// A word of the trade that explains itself when asked.
export function word(term, text) {
  return html("button", { class: "term", type: "button", "data-term": term }, text);
}

function unsolved(element, lead, reason) {
  element.append(html("p", { class: "lead" }, lead), html("p", { class: "big" }, html("strong", {}, "no line")), html("p", { class: "other" }, reason));
}

// The one thing to remember at the table: the mark, where it is counted from, and the stroke.
export function drawAnswer(element, answer, { onFrame }) {
  const { chosen, stroke } = answer;
  const held = document.activeElement?.id;
  element.replaceChildren();
  element.classList.toggle("refused", !chosen || !chosen.solved);
  if (!chosen) {
    unsolved(element, "Nothing to hit", "Click a ball and choose “Hit this”.");
    return;
  }
  if (!chosen.solved) {
    unsolved(element, sentence(chosen.way).replace(/\.$/, ""), sentence(chosen.reason));
    return;
  }
  const beside = html("div", { class: "beside" }, html("p", {}, word(answer.frame === "sight" ? "sight" : "nose", chosen.big_words)));
  if (chosen.remembered) beside.append(html("p", { class: "remembered" }, html("b", {}, chosen.remembered)));
  if (chosen.own) beside.append(html("p", { class: "own", title: chosen.own.system }, `count: ${chosen.own.say}`));
  if (chosen.contact) beside.append(html("p", {}, chosen.contact));
  if (chosen.beside && !chosen.own) beside.append(html("p", {}, chosen.beside));
  if (chosen.measured) beside.append(html("p", { class: "measured" }, chosen.measured));
  if (chosen.other) {
    const other = html("button", { class: "other", type: "button", id: "other-frame", title: "Print this one large" }, chosen.other.before, html("b", {}, chosen.other.mark), chosen.other.after);
    other.addEventListener("click", () => onFrame(chosen.other.frame));
    beside.append(other);
  }
  if (chosen.thickness) beside.append(html("p", { class: "thickness" }, chosen.thickness));
  const fact = (name, value) => html("div", {}, html("dt", {}, name), html("dd", {}, value));
  element.append(
    html("p", { class: "lead" }, html("b", {}, chosen.lead), `, ${chosen.counted_from}`),
    html("p", { class: "big" }, html("strong", { id: "mark", class: chosen.big.length > 4 ? "wide" : "" }, chosen.big)), beside,
    html("p", { class: "window" }, word("window", chosen.window)),
    html("p", { class: "strip", "aria-hidden": "true" }, [stroke.speed_text, stroke.side_text !== "none" && stroke.side_text, stroke.height !== 0 && stroke.height_text].filter(Boolean).join(" · ")),
    html("p", { class: "room-strip", "aria-hidden": "true" }, html("b", {}, chosen.room), answer.kind === "bank" || answer.pocket ? " to pot in" : " to hit in"),
    html("dl", { class: "facts" },
      fact("Speed", stroke.speed_text),
      fact(element.dataset.side ?? document.querySelector("label[for=side]").textContent, [stroke.side_text, chosen.running].filter(Boolean).join(", ")),
      fact("Tip", stroke.height_text)));
  if (held === "other-frame") element.querySelector("#other-frame")?.focus();
}
