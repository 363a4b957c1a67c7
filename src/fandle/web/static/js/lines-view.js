// The list of lines: five rows, the rest behind "more", what is no line in a fold. Keeps no state.

import { html, put, say, sentence } from "./dom.js";

const FIRST = 5; // lines shown before "more"

function row(line) {
  const button = html("button", { type: "button", "data-key": line.key, "data-rails": line.rails },
    html("span", { class: "name" }), html("span", { class: "why" }), html("span", { class: "at" }),
    html("span", { class: "room" }, html("span", { class: "room-text" }), html("span", { class: "bar" }, html("i", {}), html("u", {}))));
  return html("li", {}, button);
}

function fill(button, line, chosen) {
  put(button, { "aria-pressed": String(chosen), title: line.why });
  const [name, why, at, room] = button.children;
  say(name, line.name);
  say(why, line.why);
  say(at, line.mark || "–");
  say(room.firstChild, line.percent);
  const [share, range] = room.querySelectorAll(".bar > *");
  share.style.width = `${100 * line.share}%`;
  range.style.left = `${100 * line.low}%`;
  range.style.width = `${100 * (line.high - line.low)}%`;
  put(room, { title: `${line.percent}; with 95 % certainty ${Math.round(100 * line.low)} to ${Math.round(100 * line.high)} %` });
}

function shutRow(line) {
  const parts = [html("span", { class: "name" }, line.name), html("span", { class: "why" }, sentence(line.why))];
  if (line.name === "Jump") return html("li", { class: "off plain" }, ...parts);
  return html("li", {}, html("button", { type: "button", class: "off", "data-key": line.key, "data-rails": line.rails }, ...parts));
}

// isChosen: is it the line drawn? onRow: of the row chosen; onLook: the path of the one looked at; onAll: lines not sent are asked for.
export function drawLines(element, list, { isChosen, onRow, onLook, onAll }) {
  const { rows, shut } = list;
  const key = JSON.stringify({ ...list, rows: rows.map((line) => line.key) });
  if (element.dataset.key !== key) build(element, list, key, onAll);
  const found = (target) => rows.find((line) => line.key === target.closest?.("[data-key]")?.dataset.key);
  element.onclick = (event) => {
    const name = event.target.closest("[data-key]")?.dataset.key;
    const line = [...rows, ...shut].find((each) => each.key === name);
    if (line) onRow(line);
  };
  const look = (event) => onLook(found(event.target)?.path);
  element.onpointerover = element.onfocusin = look;
  element.onpointerleave = element.onfocusout = () => onLook("");
  const buttons = new Map([...element.querySelectorAll("button[data-key]")].map((button) => [button.dataset.key, button]));
  for (const line of rows) fill(buttons.get(line.key), line, isChosen(line));
  for (const line of shut) if (buttons.has(line.key)) put(buttons.get(line.key), { "aria-pressed": String(isChosen(line)) });
}

function build(element, { rows, shut, advice, more }, key, onAll) {
  const held = document.activeElement?.dataset ?? {};
  const unfolded = [...element.querySelectorAll("details")].filter((each) => each.open).map((each) => each.className);
  element.dataset.key = key;
  const fold = (name, title, some) => html("details", { class: name, open: unfolded.includes(name) }, html("summary", {}, title), html("ol", {}, ...some));
  element.replaceChildren(html("ol", {}, ...rows.slice(0, FIRST).map(row)));
  if (advice) element.append(html("p", { class: "no-line" }, advice));
  if (rows.length > FIRST) element.append(fold("more", `${rows.length - FIRST + more} more`, rows.slice(FIRST).map(row)));
  if (more) element.lastChild.ontoggle = onAll;
  if (shut.length) element.append(fold("shut", `${shut.length} not possible`, shut.map(shutRow)));
  if (!held.key) return;
  const buttons = [...element.querySelectorAll("button[data-key]")];
  (buttons.find(({ dataset }) => dataset.key === held.key) ?? buttons.find(({ dataset }) => dataset.rails === held.rails))?.focus();
}

export const sameStroke = (line, stroke) => Object.keys(line.stroke).every((part) => Math.abs(line.stroke[part] - stroke[part]) < 0.002);

// Beside the stroke: the chance with it, and what would raise it.
export function drawGain(element, line, { stroke, goal }, onTake) {
  const own = line && sameStroke(line, stroke);
  const chance = line && (own ? line.percent : line.here);
  const strip = document.querySelector(".room-strip"); // on a phone, where the card is a strip
  element.replaceChildren();
  if (!chance) return;
  if (strip) strip.replaceChildren(html("b", {}, chance), { pot: " to pot it", safe: " to leave it safe" }[goal] ?? " to hit it");
  element.append(html("b", {}, chance), " with this stroke");
  if (own || !line.gain) return;
  const button = html("button", { type: "button", class: "link", id: "take-stroke" }, line.gain);
  button.addEventListener("click", onTake);
  element.append(" · ", button);
}
