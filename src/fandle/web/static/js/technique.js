// A technique's page: drag a ball, change the cloth; Python solves it and says what it forgives.

import { showAddress } from "./address-bar.js";
import { asker, post } from "./ask.js";
import { ballsLayer } from "./balls-layer.js";
import { html, put, sentence } from "./dom.js";
import { labels as makeLabels } from "./labels.js";
import { drawCount, drawWords } from "./marks-layer.js";
import { drawMoment } from "./moment.js";
import { sheet as makeSheet } from "./sheet.js";
import { toast } from "./toast.js";

const find = (id) => document.getElementById(id);
const book = find("book");
const urls = JSON.parse(book.dataset.urls);
const sheet = makeSheet(find("drawing"));
const labels = makeLabels(sheet, find("layer-labels"));
let answer = JSON.parse(book.dataset.state);
let state = { layout: answer.layout, cloth: answer.cloth, rubber: answer.rubber, cue: answer.cue };
let chosenBall = null;

function say(message) {
  find("fault").textContent = sentence(message);
  find("fault").hidden = !message;
}

const ask = asker(urls.solve, (reply) => {
  answer = reply;
  say("");
  showAddress(`${urls.page}?${answer.address}`);
  draw();
}, (fault) => say(fault.message));

function change(edit) {
  state = { ...state, ...edit };
  ask(state);
}

const layer = ballsLayer(sheet, find("layer-balls"), labels, {
  onMove: (id, x, y) => {
    change({ layout: { ...state.layout, balls: state.layout.balls.map((ball) => (ball.id === id ? { id, x, y } : ball)) } });
    drawBalls();
  },
  onChoose: (id) => { chosenBall = id; drawBalls(); },
});
const drawBalls = () => layer.draw(state.layout.balls, state.layout.target, chosenBall, new Set());

for (const name of ["cloth", "rubber"]) {
  find(name).value = state[name];
  find(name).addEventListener("change", () => change({ [name]: find(name).value }));
}
find("table-of").addEventListener("change", async () => {
  try {
    const { href } = await post(urls.move, JSON.stringify({ layout: state.layout, table: find("table-of").value }));
    location.assign(`${urls.page}?${href.split("?")[1]}`);
  } catch (fault) {
    toast(fault.message);
  }
});

function way({ name, share, window: wide, says }, first) {
  const bar = html("i", { class: "way-bar" });
  bar.style.width = `${Math.round(100 * share)}%`;
  return html("li", { class: first ? "first" : "" }, html("b", {}, name), html("span", { class: "fig" }, wide), html("span", { class: "track" }, bar), says ? html("small", {}, says) : "");
}

function draw() {
  drawBalls();
  drawCount(sheet, find("layer-count"), labels, answer.works ? { applies: true, rails: answer.rails, numbers: answer.numbers } : null);
  drawWords(sheet, labels);
  labels.set();
  put(find("shot"), { d: answer.shot ?? "" });
  put(find("after"), { d: answer.driven ?? "" });
  find("ghost").toggleAttribute("hidden", true);
  drawMoment(find("moment"), answer.moment);
  if (!answer.works) {
    find("shown").replaceChildren(html("p", { class: "no-count" }, `It does not work from here: ${answer.reason}.`));
    return;
  }
  find("shown").replaceChildren(
    html("p", { class: "aim-at" }, html("b", {}, answer.aim_at), html("span", { class: "soft" }, `${answer.strike}. Room for error: ${answer.room}.`)),
    html("p", {}, answer.say), answer.in_off ? html("p", { class: "in-off" }, answer.in_off) : "", html("p", { class: "soft" }, answer.adjust),
    html("ol", { class: "ways-tried", "aria-label": "Ways of striking it, by how much the direction may be off" }, ...answer.ways.map((each, k) => way(each, k === 0))),
    answer.numbers.length ? html("p", { class: "sum" }, answer.steps.join(" · ")) : "");
}

new ResizeObserver(() => { if (sheet.fit()) draw(); }).observe(sheet.element);
draw();
