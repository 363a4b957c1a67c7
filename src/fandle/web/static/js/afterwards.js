// After the hit: what the line drawn leaves, what is to become of the cue ball, and what one change would do.

import { html, put } from "./dom.js";
import { drawEnds } from "./ends-layer.js";

const REST = 250; // ms without a change before the changes are worked out again

// parts: the panel's places, the sheet and its layers; urls; question: the line asked for; state, onChange as of main;
// isShown: is the tab open?
export function afterwards({ choice, said, vary, sheet, ahead, looked }, url, { question, state, onChange, isShown, onPlace }) {
  const next = choice.querySelector("#next-ball");
  const pocket = choice.querySelector("#next-pocket");
  let line = null; // the row that is drawn
  let timer = 0;
  let work = null;
  let about = "";

  const chosen = () => onChange({ next: next.value ? next.value + (pocket.value ? `:${pocket.value}` : "") : null, ...(next.value && { goal: "pot" }) }, "next");
  for (const each of [next, pocket]) each.addEventListener("change", chosen);
  for (const key of choice.querySelectorAll("[data-place]")) key.addEventListener("click", () => onPlace(key.dataset.place, line));

  // What can be chosen: the balls that are there but for the target, the pockets as this screen calls them.
  function draw({ layout, pockets, next: known }) {
    const balls = layout.balls.map((ball) => ball.id).filter((id) => id !== "cue" && id !== layout.target);
    const [ball, hole = ""] = (known ?? "").split(":");
    fill(next, [["", "none"], ["any", "whichever is easiest"], ...balls.map((id) => [id, id])], ball);
    fill(pocket, [["", "any pocket"], ...pockets.map(({ id, name }) => [id, name])], hole);
    pocket.disabled = !ball;
    choice.querySelector(".next-choice").hidden = pockets.length === 0;
    load();
  }

  function fill(select, options, value) {
    const key = JSON.stringify(options);
    if (select.dataset.key !== key) select.replaceChildren(...options.map(([id, name]) => html("option", { value: id }, name)));
    select.dataset.key = key;
    select.value = value;
  }

  // The row that is drawn: what it leaves in words, the next shot's line on the cloth.
  function drawn(row) {
    line = row;
    said.replaceChildren(...(row?.after ?? []).map((text) => html("p", {}, text)));
    put(ahead, { d: (state().goal === "pot" || state().next) && row ? row.ahead : "" });
  }

  function load() {
    const asked = JSON.stringify(question());
    if (asked === about || !isShown()) return;
    clearTimeout(timer);
    work?.abort();
    timer = setTimeout(ask, REST, asked);
  }

  async function ask(asked) {
    const mine = new AbortController();
    work = mine;
    about = asked;
    try {
      const reply = await fetch(url, { method: "POST", headers: { "Content-Type": "application/json" }, body: asked, signal: mine.signal });
      if (reply.ok) table(await reply.json());
      else vary.replaceChildren();
    } catch {
      about = ""; // stopped or out of reach: asked again with the next change
    }
  }

  function table(rows) {
    const body = html("tbody");
    const head = html("tr", {}, ...["change", "mark", "chance", "cue ball stops", "then"].map((text) => html("th", { scope: "col" }, text)));
    rows.forEach((row, index) => {
      const name = html("button", { type: "button", class: "link" }, [row.name, row.stroke_name && row.stroke_name !== row.name ? `(${row.stroke_name})` : ""].filter(Boolean).join(" "));
      name.addEventListener("click", () => onChange({ stroke: row.stroke, hit: row.hit }, "variation"));
      const tr = html("tr", { class: index ? "" : "as-it-is" }, html("th", { scope: "row" }, index ? name : row.name), html("td", { class: "fig" }, row.mark || "–"), html("td", { class: "fig" }, row.percent),
        html("td", {}, index ? row.moved : "–"), html("td", {}, row.says));
      const look = (on) => drawEnds(sheet, looked, on ? row : null);
      tr.addEventListener("pointerenter", () => look(true));
      tr.addEventListener("pointerleave", () => look(false));
      name.addEventListener("focus", () => look(true));
      name.addEventListener("blur", () => look(false));
      body.append(tr);
    });
    vary.replaceChildren(...(rows.length ? [html("table", { class: "vary" }, html("caption", {}, "With one thing changed, each with its own mark"), html("thead", {}, head), body)] : []));
    drawEnds(sheet, looked, null);
  }

  return { draw, drawn, load };
}
