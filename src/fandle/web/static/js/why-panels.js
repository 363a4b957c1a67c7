// The tabs below the drawing: the count, the chain of corrections, what comes after the hit.

import { html, sentence, svg } from "./dom.js";
import { word } from "./panels.js";

export function drawCountPanel(element, count, onMethod) {
  const held = document.activeElement?.id === "system";
  element.replaceChildren();
  if (!count) return;
  const choice = html("select", { class: "form-select", id: "system", "aria-label": "System" });
  for (const system of count.methods) choice.append(html("option", { value: system.method, selected: system.chosen }, system.title));
  choice.addEventListener("change", () => onMethod(choice.value));
  if (!count.applies) {
    element.append(choice, html("p", {}, `Does not work here: ${count.reason}.`));
  } else {
    const sum = html("div", { class: "sums" });
    for (const step of count.steps.slice(0, -1)) sum.append(html("p", { class: "sum small" }, step));
    sum.append(html("p", { class: `sum${count.lead.length > 18 ? " small" : ""}`, id: "sum" }, count.lead, html("b", {}, count.result)));
    const words = html("div", { class: "count-words" },
      html("p", {}, count.say, " ", word(count.method, "How it counts"), ", ", html("a", { href: count.page }, "its page, with the exact marks beside it"), "."),
      html("p", {}, `Played ${count.played.how} at ${count.played.speed}, read ${count.played.frame_words}, it `, html("b", {}, count.verdict.where), `: ${count.verdict.what}. `, count.in_the_way && sentence(count.in_the_way)));
    if (count.own) words.append(html("p", {}, "To remember: ", html("b", {}, count.own.say), "."));
    if (count.squirt) words.append(html("p", { class: "squirt" }, count.squirt));
    if (count.stands_in) words.append(html("p", { class: "stands-in" }, `${count.stands_in.title} does not work here: ${count.stands_in.reason}.`));
    element.append(html("div", {}, choice, sum), words);
  }
  if (held) choice.focus();
}

export function drawChain(element, chosen) {
  element.replaceChildren();
  if (!chosen || !chosen.solved) return;
  const rows = chosen.chain;
  const values = rows.flatMap((row) => (row.from === null ? [row.to] : [row.from, row.to]));
  // the first bar is a length from nought; the others are steps, so the scale shows where they happen
  const low = Math.min(...values);
  const high = Math.max(...values);
  const spread = Math.max(high - low, 0.05);
  const left = low - spread * 0.55;
  const x = (value) => (100 * (value - left)) / (high - left);
  const body = html("tbody");
  rows.forEach((row, index) => {
    const start = row.from === null ? left : Math.min(row.from, row.to);
    const end = Math.max(row.from ?? row.to, row.to);
    const kind = index === 0 ? "bar-start" : row.to > row.from ? "bar-plus" : "bar-minus";
    const bar = svg("svg", { viewBox: "0 0 100 10", preserveAspectRatio: "none", "aria-hidden": "true" },
      svg("rect", { class: kind, x: x(start), y: 0.5, width: Math.max(x(end) - x(start), 0.8), height: 9 }));
    body.append(html("tr", {}, html("td", {}, row.term ? word(row.term, row.label) : row.label), html("td", {}, bar), html("td", { class: "fig" }, row.text)));
  });
  const total = rows.at(-1).to.toFixed(2).replace("-", "−");
  body.append(html("tr", { class: "total" }, html("td", {}, "aim, at the cushion edge"), html("td"), html("td", { class: "fig", id: "chain-total" }, total)));
  element.append(html("table", {}, body));
  if (chosen.give) element.append(html("p", { class: "give" }, chosen.give));
}

// What happens when, the angles at the rails, and the last leg read from the ball.
export function drawAfter(element, chosen) {
  element.replaceChildren();
  if (!chosen?.solved) return;
  element.append(html("dl", { class: "helps" }, ...chosen.helps.flatMap((help) => [html("dt", {}, sentence(help.name).replace(/\.$/, "")), html("dd", {}, help.text)])));
  const list = html("ol", { class: "moments" });
  for (const moment of chosen.drawing.moments.slice(1, 9)) list.append(html("li", {}, html("b", {}, `${moment.t.toFixed(1)} s`), ` ${moment.text}`));
  element.append(list);
  if (chosen.cushions.length) element.append(html("p", { class: "cushions" }, chosen.cushions.join(" · ")));
  if (chosen.seen) element.append(html("p", { class: "seen" }, chosen.seen));
}
