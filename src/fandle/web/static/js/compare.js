// The Compare room: every system's sum and landing on one layout. Drag a ball, tap a system. Python counts and plays.

import { showAddress } from "./address-bar.js";
import { asker, send } from "./ask.js";
import { ballsLayer } from "./balls-layer.js";
import { html, put, sentence } from "./dom.js";
import { handsPanel } from "./hands.js";
import { holdsMap } from "./holds.js";
import { preferPicture } from "./prefer.js";
import { drawCount, drawWords } from "./marks-layer.js";
import { systemDetail } from "./system-detail.js";
import { labels as makeLabels } from "./labels.js";
import { sheet as makeSheet } from "./sheet.js";
import { carry } from "./settings.js";
import { toast } from "./toast.js";

const find = (id) => document.getElementById(id);
const room = find("compare");
const urls = JSON.parse(room.dataset.urls);
const sheet = makeSheet(find("drawing"));
const labels = makeLabels(sheet, find("layer-labels"));
let answer = JSON.parse(room.dataset.state);
let balls = answer.layout;
let wanted = new URLSearchParams(answer.address).get("method");
let chosenBall = null;

const open = () => answer.systems.filter((system) => system.applies);
const shown = () => open().find((system) => system.method === wanted) ?? open()[0] ?? null;

function say(message) {
  find("fault").textContent = sentence(message);
  find("fault").hidden = !message;
}

const ask = asker(urls.compare, (reply) => {
  answer = reply;
  say("");
  follow();
  draw();
}, (fault) => say(fault.message));

function follow() {
  const query = answer.address.replace(/(^|&)method=[^&]*/, `$1method=${wanted}`);
  showAddress(`?${query}`);
  carry(query);
}

const layer = ballsLayer(sheet, find("layer-balls"), labels, {
  onMove: (id, x, y) => {
    balls = { ...balls, balls: balls.balls.map((ball) => (ball.id === id ? { id, x, y } : ball)) };
    drawBalls();
    map.clear();
    prefer.clear();
    ask({ layout: balls });
  },
  onChoose: (id) => { chosenBall = id; drawBalls(); },
});
const drawBalls = () => layer.draw(balls.balls, balls.target, chosenBall, new Set());

function choose(method) {
  if (method !== shown()?.method) map.clear();
  wanted = method;
  follow();
  draw();
}

async function favour(system) {
  try {
    await send("PUT", urls.preferences, { system: system.method });
    answer = { ...answer, favourite: system.method };
    toast(`${system.title} leads in the Table room from now on.`);
    draw();
  } catch (fault) {
    toast(fault.message);
  }
}

function row(system) {
  const miss = system.lands.off_balls >= 1 || !system.open;
  const button = html("button", { type: "button", class: `system${miss ? " miss" : ""}`, "data-method": system.method, "aria-pressed": String(shown()?.method === system.method) },
    html("span", { class: "title" }, `${system.title}${system.method === answer.favourite ? " ★" : ""}`),
    html("span", { class: "lands" }, system.verdict.where, system.chance ? html("small", {}, system.chance) : ""),
    html("span", { class: "sum" }, `${system.lead}${system.result}`),
    html("span", { class: "what" }, system.in_the_way || system.verdict.what, html("br"), system.way));
  button.addEventListener("click", () => choose(system.method));
  return html("li", {}, button);
}

function detail(system) {
  if (!system) return [html("p", {}, "No system works from here: move a ball, or choose the ball to be hit in the Table room.")];
  const page = html("a", { class: "btn tool", href: system.page }, "Its page in the Handbook");
  const own = system.method === answer.favourite;
  const mine = html("button", { class: "btn tool", type: "button", id: "favour", "aria-pressed": String(own) }, own ? "★ My system" : "☆ Make this my system");
  mine.addEventListener("click", () => favour(system));
  return systemDetail(system, [page, mine]);
}

const map = holdsMap({ button: find("map"), before: find("map-before"), progress: find("map-progress"), says: find("map-says") }, sheet, find("layer-holds"), urls.map,
  () => ({ example: { layout: answer.layout, rails: shown().rails.join(",") }, method: shown().method }));
const prefer = preferPicture({ button: find("prefer"), progress: find("prefer-progress"), says: find("prefer-says"), box: find("pictures") }, sheet, urls.prefer,
  () => ({ body: { example: { layout: balls } }, target: balls.balls.filter((ball) => ball.id === balls.target).map((ball) => [ball.x * sheet.dx, sheet.width - ball.y * sheet.dy]) }));
const measure = handsPanel(find("hands"), sheet, find("layer-hands"), () => {});

function draw() {
  const system = shown();
  drawBalls();
  drawCount(sheet, find("layer-count"), labels, system);
  drawWords(sheet, labels);
  labels.set();
  put(find("shot"), { d: system?.shot ?? "" });
  find("ghost").toggleAttribute("hidden", true);
  const held = document.activeElement?.dataset?.method;
  find("systems").replaceChildren(...open().map(row));
  if (held) find("systems").querySelector(`[data-method="${held}"]`)?.focus();
  find("shown").replaceChildren(...detail(system));
  find("map").hidden = !system;
  find("prefer").hidden = !balls.target;
  measure.load(system?.hands ?? []);
  const shut = answer.systems.filter((each) => !each.applies);
  find("shut").hidden = shut.length === 0;
  find("shut").querySelector("summary").textContent = `${shut.length} systems do not work from here`;
  find("shut").querySelector("ul").replaceChildren(...shut.map((each) => html("li", {}, html("b", {}, each.title), ` ${each.reason}`)));
}

new ResizeObserver(() => { if (sheet.fit()) draw(); }).observe(sheet.element);
follow();
draw();
