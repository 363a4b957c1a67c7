// A system's page: its live example. Drag a ball, change the cloth; Python counts, plays and draws the curves' figures.

import { showAddress } from "./address-bar.js";
import { asker, post, send } from "./ask.js";
import { ballsLayer } from "./balls-layer.js";
import { drawCurves } from "./curves.js";
import { html, put, sentence } from "./dom.js";
import { handsPanel } from "./hands.js";
import { holdsMap } from "./holds.js";
import { drawCount, drawWords } from "./marks-layer.js";
import { drawOwnMarks } from "./own-marks.js";
import { systemDetail } from "./system-detail.js";
import { labels as makeLabels } from "./labels.js";
import { sheet as makeSheet } from "./sheet.js";
import { toast } from "./toast.js";

const REST = 350; // ms after a change before the curves are asked for: they are not needed while a ball is dragged

const find = (id) => document.getElementById(id);
const book = find("book");
const urls = JSON.parse(book.dataset.urls);
const sheet = makeSheet(find("drawing"));
const labels = makeLabels(sheet, find("layer-labels"));
let answer = JSON.parse(book.dataset.state);
let state = { layout: answer.layout, rails: answer.rails, cloth: answer.cloth, rubber: answer.rubber, cue: answer.cue };
let chosenBall = null;

function say(message) {
  find("fault").textContent = sentence(message);
  find("fault").hidden = !message;
}

const ask = asker(urls.example, (reply) => {
  answer = reply;
  state = { ...state, rails: reply.rails };
  say("");
  showAddress(`${urls.page}?${answer.address}`);
  draw();
}, (fault) => say(fault.message));

let timer = 0;
const drift = asker(urls.drift, ({ axis, cloth, pace, cue, own }) => {
  drawCurves(find("plot-cloth"), cloth, axis);
  find("by-cue").hidden = cue.length === 0;
  find("any-cue").hidden = cue.length > 0;
  if (cue.length) drawCurves(find("plot-cue"), cue, axis);
  drawCurves(find("plot-pace"), pace, axis);
  drawOwnMarks(find("own-marks"), own);
}, (fault) => say(fault.message));

function change(edit) {
  state = { ...state, ...edit };
  map.clear();
  ask(state);
  clearTimeout(timer);
  timer = setTimeout(() => drift(state), REST);
}

const layer = ballsLayer(sheet, find("layer-balls"), labels, {
  onMove: (id, x, y) => {
    change({ layout: { ...state.layout, balls: state.layout.balls.map((ball) => (ball.id === id ? { id, x, y } : ball)) } });
    drawBalls();
  },
  onChoose: (id) => { chosenBall = id; drawBalls(); },
});
const drawBalls = () => layer.draw(state.layout.balls, state.layout.target, chosenBall, new Set());

const map = holdsMap({ button: find("map"), before: find("map-before"), progress: find("map-progress"), says: find("map-says") }, sheet, find("layer-holds"), urls.map,
  () => ({ example: state, method: book.dataset.method }));
const measure = handsPanel(find("hands"), sheet, find("layer-hands"), (open) => book.classList.toggle("measuring", open));

for (const name of ["cloth", "rubber"]) {
  find(name).value = state[name];
  find(name).addEventListener("change", () => change({ [name]: find(name).value }));
}
find("table-of").addEventListener("change", async () => {
  try {
    const { href } = await post(urls.move, JSON.stringify({ layout: state.layout, table: find("table-of").value }));
    const query = new URLSearchParams(href.split("?")[1]);
    query.set("rails", state.rails);
    location.assign(`${urls.page}?${query}`);
  } catch (fault) {
    toast(fault.message);
  }
});

find("forget")?.addEventListener("click", async () => {
  try {
    const { say: told } = await send("PUT", urls.testShot, { table: find("forget").dataset.table, shift: null });
    find("carried").textContent = told;
  } catch (fault) {
    toast(fault.message);
  }
});

async function favour() {
  try {
    await send("PUT", urls.preferences, { system: book.dataset.method });
    book.dataset.favourite = book.dataset.method;
    draw();
    toast(`${answer.system.title} leads in the Table room from now on.`);
  } catch (fault) {
    toast(fault.message);
  }
}

function rival(other) {
  const name = html("td", {}, html("a", { href: `${other.href}?${answer.address}` }, other.title));
  if (!other.applies) return html("tr", {}, name, html("td", { colspan: "3", class: "soft" }, `does not work here: ${other.reason}`));
  return html("tr", {}, name, html("td", { class: "sum" }, other.sum), html("td", {}, other.nose), html("td", {}, html("b", {}, other.where), `, ${other.what}`));
}

function draw() {
  const { system } = answer;
  drawBalls();
  drawCount(sheet, find("layer-count"), labels, system);
  drawWords(sheet, labels);
  labels.set();
  put(find("shot"), { d: system.shot ?? "" });
  find("ghost").toggleAttribute("hidden", true);
  const starred = book.dataset.favourite === book.dataset.method;
  const mine = html("button", { class: "btn tool", type: "button", id: "favour", "aria-pressed": String(starred) }, starred ? "★ My system" : "☆ Make this my system");
  mine.addEventListener("click", favour);
  find("shown").replaceChildren(...(system.applies ? systemDetail(system, [mine]) : [html("p", { class: "no-count" }, `It does not work from here: ${system.reason}.`)]));
  measure.load(system.hands ?? []);
  const own = system.applies ? [{ applies: true, href: urls.page, title: system.title, sum: `${system.lead}${system.result}`, nose: system.aim.nose.toFixed(2), ...system.verdict }] : [];
  find("rivals").replaceChildren(html("caption", {}, "On the layout drawn here"),
    html("thead", {}, html("tr", {}, ...["System", "Sum", "At the cushion edge", "Lands"].map((text) => html("th", { scope: "col" }, text)))), html("tbody", {}, ...[...own, ...answer.rivals].map(rival)));
}

new ResizeObserver(() => { if (sheet.fit()) draw(); }).observe(sheet.element);
draw();
drift(state);
