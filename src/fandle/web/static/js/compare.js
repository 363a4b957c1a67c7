// The Compare room: every school's sum and landing on one layout. Drag a ball, tap a school. Python counts and plays.

import { showAddress } from "./address-bar.js";
import { asker, send } from "./ask.js";
import { ballsLayer } from "./balls-layer.js";
import { html, put, sentence } from "./dom.js";
import { handsPanel } from "./hands.js";
import { holdsMap } from "./holds.js";
import { drawCount } from "./marks-layer.js";
import { schoolDetail } from "./school-detail.js";
import { sheet as makeSheet } from "./sheet.js";
import { toast } from "./toast.js";

const find = (id) => document.getElementById(id);
const room = find("compare");
const urls = JSON.parse(room.dataset.urls);
const sheet = makeSheet(find("drawing"));
let answer = JSON.parse(room.dataset.state);
let balls = answer.layout;
let wanted = new URLSearchParams(answer.address).get("method");
let chosenBall = null;

const open = () => answer.schools.filter((school) => school.applies);
const shown = () => open().find((school) => school.method === wanted) ?? open()[0] ?? null;

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
  find("to-table").href = `${urls.table}?${query}`;
}

const layer = ballsLayer(sheet, find("layer-balls"), {
  onMove: (id, x, y) => {
    balls = { ...balls, balls: balls.balls.map((ball) => (ball.id === id ? { id, x, y } : ball)) };
    drawBalls();
    map.clear();
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

async function favour(school) {
  try {
    await send("PUT", urls.preferences, { school: school.method });
    answer = { ...answer, favourite: school.method };
    toast(`${school.title} leads in the Table room from now on.`);
    draw();
  } catch (fault) {
    toast(fault.message);
  }
}

function row(school) {
  const miss = school.lands.off_balls >= 1 || !school.open;
  const button = html("button", { type: "button", class: `school${miss ? " miss" : ""}`, "data-method": school.method, "aria-pressed": String(shown()?.method === school.method) },
    html("span", { class: "title" }, `${school.title}${school.method === answer.favourite ? " · yours" : ""}`),
    html("span", { class: "lands" }, school.verdict.where),
    html("span", { class: "sum" }, `${school.lead}${school.result}`),
    html("span", { class: "what" }, school.in_the_way || school.verdict.what, html("br"), school.way));
  button.addEventListener("click", () => choose(school.method));
  return html("li", {}, button);
}

function detail(school) {
  if (!school) return [html("p", {}, "No school counts from here: move a ball, or choose the ball to be hit in the Table room.")];
  const page = html("a", { class: "btn tool", href: school.page }, "Its page in the Handbook");
  const mine = html("button", { class: "btn tool", type: "button", id: "favour" }, "Make it my school");
  mine.addEventListener("click", () => favour(school));
  return schoolDetail(school, [page, school.method === answer.favourite ? null : mine].filter(Boolean));
}

const map = holdsMap({ button: find("map"), progress: find("map-progress"), says: find("map-says") }, sheet, find("layer-holds"), urls.map,
  () => ({ example: { layout: answer.layout, rails: shown().rails.join(",") }, method: shown().method }));
const measure = handsPanel(find("hands"), sheet, find("layer-hands"), () => {});

function draw() {
  const school = shown();
  drawBalls();
  drawCount(sheet, find("layer-count"), school);
  put(find("shot"), { d: school?.shot ?? "" });
  find("ghost").toggleAttribute("hidden", true);
  const held = document.activeElement?.dataset?.method;
  find("schools").replaceChildren(...open().map(row));
  if (held) find("schools").querySelector(`[data-method="${held}"]`)?.focus();
  find("shown").replaceChildren(...detail(school));
  find("map").hidden = !school;
  measure.load(school?.hands ?? []);
  map.redraw();
  const shut = answer.schools.filter((each) => !each.applies);
  find("shut").hidden = shut.length === 0;
  find("shut").querySelector("summary").textContent = `${shut.length} schools do not count from here`;
  find("shut").querySelector("ul").replaceChildren(...shut.map((each) => html("li", {}, html("b", {}, each.title), ` ${each.reason}`)));
}

new ResizeObserver(() => { sheet.fit(); draw(); }).observe(sheet.element);
follow();
draw();
