// The Table room. State goes to the server, the answer comes back, everything is drawn from it.

import { asker, post } from "./ask.js";
import { ballsLayer } from "./balls-layer.js";
import { ballsPanel } from "./balls-panel.js";
import { drawCount, drawMark } from "./marks-layer.js";
import { drawAnswer, drawChain, drawCountPanel, drawLines, drawTask } from "./panels.js";
import { sheet as makeSheet } from "./sheet.js";
import { strokePanel } from "./stroke-panel.js";

const room = document.getElementById("room");
const urls = JSON.parse(room.dataset.urls);
const find = (id) => document.getElementById(id);
const sheet = makeSheet(find("drawing"));

let answer = JSON.parse(room.dataset.state);
let layout = answer.layout;
let stroke = { speed: answer.stroke.speed, side: answer.stroke.side, up: answer.stroke.up };
let rail = new URLSearchParams(answer.address).get("rail");
let { method, frame } = answer;
let chosen = null;
let wrong = new Set();

const ask = asker(urls.answer, accept, refuse);

function change(next = {}) {
  if (next.layout) layout = next.layout;
  if (next.stroke) stroke = { ...stroke, ...next.stroke };
  if ("rail" in next) rail = next.rail;
  if (next.method) method = next.method;
  if (next.frame) frame = next.frame;
  wrong = new Set();
  drawBalls();
  ask({ layout, ...stroke, rail, method, frame });
}

function accept(reply) {
  answer = reply;
  stroke = { speed: reply.stroke.speed, side: reply.stroke.side, up: reply.stroke.up };
  history.replaceState(null, "", `?${reply.address}`);
  find("save").href = `${room.dataset.save}?${reply.address}`;
  say("");
  draw();
}

function refuse(fault) {
  say(fault.message);
  if (fault.field === "balls") wrong = new Set(layout.balls.map((ball) => ball.id).filter((id) => fault.message.includes(` ${id} `) || (id === "cue" && fault.message.includes("cue ball"))));
  sheet.element.classList.add("stale");
  drawBalls();
}

function say(message) {
  const element = find("fault");
  element.textContent = message && `${message[0].toUpperCase()}${message.slice(1)}${/[.!?]$/.test(message) ? "" : "."}`;
  element.hidden = !message;
  if (!message) sheet.element.classList.remove("stale");
}

const withBall = (id, x, y) => ({ ...layout, balls: layout.balls.map((ball) => (ball.id === id ? { id, x, y } : ball)) });
const onMove = (id, x, y) => change({ layout: withBall(id, x, y) });
const onChoose = (id) => { chosen = id; drawBalls(); };
const layer = ballsLayer(sheet, find("layer-balls"), { onMove, onChoose });
const panel = ballsPanel(find("balls"), {
  onMove,
  onChoose,
  onTarget: (id) => change({ layout: { ...layout, target: id } }),
  onRemove: (id) => {
    const balls = layout.balls.filter((ball) => ball.id !== id);
    const next = balls.find((ball) => ball.id !== "cue");
    const target = layout.target === id ? (next ? next.id : null) : layout.target;
    change({ layout: { ...layout, balls, target } });
  },
});
const drawStroke = strokePanel(find("stroke"), Number(room.dataset.tips), (part) => change({ stroke: part }));

function drawBalls() {
  layer.draw(layout.balls, layout.target, chosen, wrong);
  panel(layout.balls, layout.target, chosen);
}

function path(id, data) {
  find(id).setAttribute("d", data ?? "");
}

function draw() {
  const line = answer.chosen;
  const drawing = line && line.solved ? line.drawing : null;
  sheet.element.style.setProperty("--px", `${sheet.mmPerPixel()}px`);
  path("shot", drawing?.shot);
  path("natural", drawing?.natural);
  path("aim-line", drawing?.aim_line);
  const ghost = find("ghost");
  ghost.toggleAttribute("hidden", !drawing);
  if (drawing) {
    ghost.setAttribute("cx", drawing.ghost[0]);
    ghost.setAttribute("cy", drawing.ghost[1]);
  }
  drawMark(sheet, find("layer-mark"), line, frame);
  drawCount(sheet, find("layer-count"), answer.count);
  drawTask(find("task"), answer.headline);
  drawAnswer(find("answer"), answer, (name) => change({ frame: name }));
  drawLines(find("lines"), answer, (name) => change({ rail: name }));
  drawCountPanel(find("count"), answer.count, (name) => change({ method: name }));
  drawChain(find("chain"), line);
  drawStroke(answer.stroke);
  drawBalls();
}

find("add").addEventListener("click", async () => {
  try {
    const grown = await post(urls.add, JSON.stringify(layout));
    const added = grown.balls.at(-1).id;
    chosen = added;
    change({ layout: { ...grown, target: grown.target ?? added } });
  } catch (fault) {
    say(fault.message);
  }
});

find("open").addEventListener("change", async (event) => {
  const [file] = event.target.files;
  event.target.value = "";
  if (!file) return;
  try {
    const read = await post(urls.read, await file.text(), "text/plain");
    chosen = null;
    change({ layout: read, rail: null });
  } catch (fault) {
    say(`${file.name}: ${fault.message}`);
  }
});

new ResizeObserver(draw).observe(sheet.element);
find("save").href = `${room.dataset.save}?${answer.address}`;
draw();
