// The panels beside the drawing. Each is a function of the server's answer; none keeps state.

import { html, put, say, sentence, svg } from "./dom.js";

export function drawTask(element, headline, verb) {
  element.replaceChildren();
  if (!headline.ball) {
    element.append(headline.way);
    return;
  }
  element.append(verb, html("b", {}, headline.ball), html("i", {}, "•"), headline.way);
}

export function drawAnswer(element, answer, { onFrame, onFar }) {
  const { chosen, stroke } = answer;
  element.replaceChildren();
  element.classList.toggle("refused", !chosen || !chosen.solved);
  if (!chosen) {
    element.append(html("p", { class: "lead" }, "Choose the ball to be hit, in the list of balls."));
    return;
  }
  if (!chosen.solved) {
    element.append(
      html("p", { class: "lead" }, `${chosen.way[0].toUpperCase()}${chosen.way.slice(1)}`),
      html("p", { class: "big" }, html("strong", {}, "no line")),
      html("p", { class: "other" }, `${chosen.reason[0].toUpperCase()}${chosen.reason.slice(1)}. Try another rail, speed or side.`));
    return;
  }
  element.append(
    html("div", { class: "lead-row" }, html("p", { class: "lead" }, chosen.lead), farButton(onFar)),
    html("p", { class: "big" }, html("strong", { id: "mark", class: chosen.big.length > 4 ? "wide" : "" }, chosen.big),
      html("span", {}, word(answer.frame === "sight" ? "sight" : "nose", chosen.big_words))));
  if (chosen.other) {
    const other = html("button", { class: "other", type: "button", id: "other-frame", title: "Print this one large" },
      chosen.other.before, html("b", {}, chosen.other.mark), chosen.other.after);
    other.addEventListener("click", () => onFrame(chosen.other.frame));
    element.append(other);
  }
  if (chosen.measured) element.append(html("p", { class: "other measured" }, html("b", {}, chosen.measured)));
  const fact = (name, value, more) => html("div", {}, html("dt", {}, name), html("dd", {}, value, more ? html("small", {}, more) : ""));
  element.append(
    html("dl", { class: "facts" },
      fact("Speed", stroke.speed_text, stroke.speed_more),
      fact("Side", stroke.side_text, chosen.running ? word(chosen.running, chosen.running) : ""),
      fact("Height", stroke.height_text)),
    html("p", { class: "window" }, html("i", { "aria-hidden": "true" }), html("span", {}, word("window", chosen.window))));
  if (chosen.contact) element.append(html("p", { class: "thickness" }, chosen.contact));
  if (chosen.cushions?.length > 1) element.append(html("p", { class: "cushions" }, chosen.cushions.join(" · ")));
  if (chosen.seen) element.append(html("p", { class: "seen" }, chosen.seen));
  if (chosen.thickness) element.append(html("p", { class: "thickness" }, chosen.thickness));
}

// A word of the trade that explains itself when asked.
function word(term, text) {
  return html("button", { class: "term", type: "button", "data-term": term }, text);
}

function farButton(onFar) {
  const button = html("button", { class: "btn tool", type: "button", id: "far-open", title: "Only the mark, readable from two metres" }, "2 m");
  button.addEventListener("click", onFar);
  return button;
}

export function drawLines(element, lines, rails, onRails) {
  const rows = [...element.querySelectorAll("[data-rails]")];
  if (rows.length === lines.length && lines.every((line, k) => line.rails === rows[k].dataset.rails)) {
    lines.forEach((line, k) => {
      put(rows[k], { "aria-pressed": rails === line.rails, class: line.solved ? "" : "off" });
      [line.name, line.why, line.mark].forEach((text, part) => say(rows[k].children[part], text));
    });
    return;
  }
  const list = html("ol");
  for (const line of lines) {
    const chosen = rails === line.rails;
    const button = html("button", { type: "button", "aria-pressed": String(chosen), class: line.solved ? "" : "off", "data-rails": line.rails },
      html("span", { class: "name" }, line.name), html("span", { class: "why" }, line.why), html("span", { class: "at" }, line.mark));
    button.addEventListener("click", () => onRails(line.rails));
    list.append(html("li", {}, button));
  }
  const held = document.activeElement?.dataset?.rails;
  element.replaceChildren(list);
  if (held) element.querySelector(`[data-rails="${held}"]`)?.focus();
}

export function drawCountPanel(element, count, onMethod) {
  const held = document.activeElement?.id === "system";
  element.replaceChildren();
  if (!count) return;
  const head = html("div", { class: "count-head" });
  const choice = html("select", { class: "form-select", id: "system", "aria-label": "System" });
  for (const system of count.methods) choice.append(html("option", { value: system.method, selected: system.chosen }, system.title));
  choice.addEventListener("change", () => onMethod(choice.value));
  head.append(choice);
  if (!count.applies && count.instead?.length) {
    head.append(html("span", {}, "counts here:"));
    for (const method of count.instead) {
      const button = html("button", { type: "button", "data-method": method }, count.methods.find((system) => system.method === method).title);
      button.addEventListener("click", () => onMethod(method));
      head.append(button);
    }
  }
  element.append(head);
  if (!count.applies) {
    element.append(html("p", {}, `Does not apply: ${count.reason}.`));
  } else {
    for (const step of count.steps.slice(0, -1)) element.append(html("p", { class: "sum small" }, step));
    element.append(
      html("p", { class: `sum${count.lead.length > 18 ? " small" : ""}`, id: "sum" }, count.lead, html("b", {}, count.result)),
      html("p", {}, count.say, " ", word(count.method, "How it counts"), ", ", html("a", { href: count.page }, "its page"), "."),
      html("p", {}, `Played ${count.played.how} at ${count.played.speed}, read ${count.played.frame}, it lands `, html("b", {}, count.verdict.where), `: ${count.verdict.what}.${count.in_the_way && ` ${sentence(count.in_the_way)}`}`));
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
  body.append(html("tr", { class: "total" }, html("td", {}, "aim, at the nose"), html("td"), html("td", { class: "fig", id: "chain-total" }, total)));
  element.append(html("h2", {}, "From the natural mark to yours"), html("table", {}, body));
  if (chosen.give) element.append(html("p", { class: "give" }, chosen.give));
}
