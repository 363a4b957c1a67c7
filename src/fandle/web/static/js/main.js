// The Table room. State goes to the server, the answer comes back, everything is drawn from it.

import { showAddress } from "./address-bar.js";
import { asker, post } from "./ask.js";
import { ballsLayer } from "./balls-layer.js";
import { ballsPanel } from "./balls-panel.js";
import { farView, help } from "./help.js";
import { makeHistory } from "./history.js";
import { shortcuts } from "./keys.js";
import { drawCount, drawMark } from "./marks-layer.js";
import { drawRests } from "./rests-layer.js";
import { layoutMenu } from "./menu.js";
import { notePanel } from "./note.js";
import { drawAnswer, drawChain, drawCountPanel, drawLines, drawTask } from "./panels.js";
import { player } from "./player.js";
import { sheet as makeSheet } from "./sheet.js";
import { instead } from "./instead.js";
import { mirrorView } from "./mirror-view.js";
import { toast } from "./toast.js";
import { linesList } from "./lines-list.js";
import { atMost, put as putAll, sentence, whenChanged } from "./dom.js";
import { strokePanel } from "./stroke-panel.js";

const room = document.getElementById("room");
const urls = JSON.parse(room.dataset.urls);
const find = (id) => document.getElementById(id);
const sheet = makeSheet(find("drawing"));

let answer = JSON.parse(room.dataset.state);
let state = stateOf(answer, new URLSearchParams(answer.address).get("rails"));
let chosen = null;
let wrong = new Set();
let pressed = false; // is a pointer down anywhere: a ball, the tip, a slider
for (const type of ["pointerdown", "pointerup", "pointercancel"]) window.addEventListener(type, () => { pressed = type === "pointerdown"; }, true);

// What the page asks about; everything else is drawn from the answer.
function stateOf(reply, rails) {
  const { speed, side, up, cue } = reply.stroke;
  return { layout: reply.layout, stroke: { speed, side, up, cue }, rails, hit: reply.hit, kind: reply.kind, count: reply.count_of_rails, pocket: reply.pocket, method: reply.method, frame: reply.frame };
}

const question = () => ({ layout: state.layout, ...state.stroke, rails: state.rails ?? answer.chosen?.rails ?? null, hit: state.hit, kind: state.kind, count: state.count, pocket: state.pocket, method: state.method, frame: state.frame });
const ask = asker(urls.answer, accept, refuse);

// Is the list that is known still about this kind of line?
const sameList = () => ["kind", "count", "pocket"].every((part) => state[part] === stateOf(answer)[part]);

// Where the best of a long list is wanted, the best of its first few will do until the list has come again.
const contenders = () => (sameList() && state.count !== "1" && state.kind === "kick" && state.rails === null ? finder.first(4) : []);

// A bank is dear: while it is dragged the one that was best stands.
const bankSoFar = () => (sameList() && state.kind === "bank" && answer.chosen?.solved ? answer.chosen.rails : null);

function followLines(lines) {
  drawLines(find("lines"), lines, answer.chosen?.rails, (rails) => change({ rails }, "rails"));
  const best = lines[0];
  if (state.rails === null && best?.solved && best.rails !== answer.chosen?.rails) ask({ ...question(), rails: best.rails });
}

function put(next) {
  state = next;
  wrong = new Set();
  drawBalls();
  ask({ ...question(), rails: state.rails ?? bankSoFar(), among: contenders() });
}

function change(next, kind) {
  steps.remember(state, kind);
  put({ ...state, ...next, stroke: { ...state.stroke, ...next.stroke } });
}

// The address names a line only where the player has chosen it.
function addressOf(reply) {
  const query = reply.address.split("&");
  return (state.rails === null ? query.filter((part) => !part.startsWith("rails=")) : query).join("&");
}

function accept(reply) {
  const moved = JSON.stringify([reply.layout, reply.chosen?.rails]) !== JSON.stringify([answer.layout, answer.chosen?.rails]);
  answer = reply;
  state = { ...state, stroke: stateOf(reply, state.rails).stroke };
  showAddress(`?${addressOf(reply)}`);
  find("to-compare").href = `/compare?${reply.address}`;
  find("save").href = `${room.dataset.save}?${reply.address}`;
  say("");
  draw(moved);
}

function refuse(fault) {
  say(fault.message);
  if (fault.balls.length) wrong = new Set(fault.balls);
  sheet.element.classList.add("stale");
  drawBalls();
}

function say(message) {
  const element = find("fault");
  element.textContent = sentence(message);
  element.hidden = !message;
  if (!message) sheet.element.classList.remove("stale");
}

const steps = makeHistory({ undo: find("undo"), redo: find("redo") }, put, {
  undoNote: async (uid) => { await notes.takeBack(uid); toast("The note is taken back."); },
  redoNote: async (uid) => { await notes.bringBack(uid); toast("The note is in the log again."); },
});
const undo = () => steps.undo(state);
const redo = () => steps.redo(state);
find("undo").addEventListener("click", undo);
find("redo").addEventListener("click", redo);

function withBall(id, x, y) {
  return { ...state.layout, balls: state.layout.balls.map((ball) => (ball.id === id ? { id, x, y } : ball)) };
}

const onMove = (id, x, y) => change({ layout: withBall(id, x, y) }, `move ${id}`);
const onChoose = (id) => { chosen = id; drawBalls(); };
const layer = ballsLayer(sheet, find("layer-balls"), { onMove, onChoose });
const panel = atMost(200, ballsPanel(find("balls"), find("units"), JSON.parse(room.dataset.units), {
  onMove,
  onChoose,
  onTarget: (id) => change({ layout: { ...state.layout, target: id } }, "target"),
  onRemove: (id) => {
    const balls = state.layout.balls.filter((ball) => ball.id !== id);
    const next = balls.find((ball) => ball.id !== "cue");
    const target = state.layout.target === id ? (next ? next.id : null) : state.layout.target;
    change({ layout: { ...state.layout, balls, target } }, "remove");
  },
})); // text fields are slow to paint: they follow a drag a little more seldom
const drawStroke = whenChanged(strokePanel(find("stroke"), (part, kind) => change({ stroke: { ...part } }, kind), (hit) => change({ hit }, "hit")));
const film = player(sheet, find("layer-film"), find("layer-balls"), Object.fromEntries(["play", "step", "slow", "skip", "moment"].map((id) => [id, find(id)])));
const notes = notePanel(find("note"), sheet, find("layer-note"), urls, question, (uid) => steps.note(uid));
layoutMenu(urls, {
  state: () => state,
  say,
  onLayout: (edited, kind) => {
    chosen = null;
    const stroke = "side" in edited ? { side: edited.side } : {};
    change({ layout: edited.layout, stroke, rails: edited.rails, hit: edited.hit ?? 0 }, kind);
  },
});
const finder = linesList(find("ways"), sheet.element, urls.lines, {
  question,
  onChange: change,
  onLines: followLines,
});
const holder = instead(find("instead"), urls.instead, { question, onStroke: ({ speed, side, up }, what) => change({ stroke: { speed, side, up } }, `hold ${what}`) });
let mirrored = null; // until somebody chooses: from two rails on, where there is no count to look at

function drawMirror(line, drawing) {
  const mirror = drawing?.mirror;
  const on = Boolean(mirror) && (mirrored ?? line.rails.includes(","));
  find("unfold").disabled = !mirror;
  putAll(find("unfold"), { "aria-pressed": on });
  find("mirror").hidden = !on;
  if (on || find("mirror").firstChild) find("mirror").replaceChildren(...(on ? [mirrorView(mirror, { target: answer.layout.target })] : []));
}

find("unfold").addEventListener("click", () => {
  mirrored = find("mirror").hidden;
  draw();
});
const helper = help(JSON.parse(room.dataset.words), urls, () => put(state));
const far = () => farView(answer);
shortcuts({ undo, redo, p: film.toggle, s: film.step, r: far, "?": helper.open, n: () => notes.focus() });

function drawBalls() {
  layer.draw(state.layout.balls, state.layout.target, chosen, wrong);
  panel(state.layout.balls, state.layout.target, chosen);
}

function path(id, data) {
  putAll(find(id), { d: data ?? "" });
}

const task = whenChanged((headline, verb) => drawTask(find("task"), headline, verb));
const countPanel = whenChanged((count) => drawCountPanel(find("count"), count, (method) => change({ method }, "method")));

function draw(moved = false) {
  const line = answer.chosen;
  drawBalls();
  const drawing = line && line.solved ? line.drawing : null;
  drawMirror(line, drawing);
  path("shot", drawing?.shot);
  path("after", drawing?.after.join(""));
  path("natural", drawing?.natural);
  path("aim-line", drawing?.aim_line);
  const ghost = find("ghost");
  ghost.toggleAttribute("hidden", !drawing);
  if (drawing) {
    ghost.setAttribute("cx", drawing.ghost[0]);
    ghost.setAttribute("cy", drawing.ghost[1]);
  }
  drawRests(sheet, find("layer-rests"), drawing);
  drawMark(sheet, find("layer-mark"), line, answer.frame);
  drawCount(sheet, find("layer-count"), answer.count, line?.solved ? { rail: line.rail, at: line.answer.corrected[answer.frame] } : null);
  task(answer.headline, line?.rails === "straight" ? "Shoot " : state.kind === "bank" ? "Bank " : "Kick ");
  drawAnswer(find("answer"), answer, { onFrame: (frame) => change({ frame }, "frame"), onFar: far });
  finder.show(state);
  finder.follow(answer.lines, JSON.stringify([answer.layout, answer.stroke, answer.hit, answer.kind, answer.count_of_rails, answer.pocket, answer.frame]), pressed);
  countPanel(answer.count ?? null);
  holder.load(line, answer.frame, moved);
  const alone = new Set(drawing?.involved ?? []);
  for (const ball of find("layer-balls").children) ball.toggleAttribute("data-aside", alone.size > 0 && !alone.has(ball.dataset.ball));
  drawChain(find("chain"), line);
  drawStroke(answer.stroke, answer.hit, answer.hit_text);
  notes.load(line, moved);
  film.load(drawing);
}

find("only").addEventListener("click", () => {
  const on = find("only").getAttribute("aria-pressed") !== "true";
  find("only").setAttribute("aria-pressed", String(on));
  sheet.element.classList.toggle("only-involved", on);
});

find("add").addEventListener("click", async () => {
  try {
    const grown = await post(urls.add, JSON.stringify(state.layout));
    chosen = grown.balls.at(-1).id;
    change({ layout: { ...grown, target: grown.target ?? chosen } }, "add");
  } catch (fault) {
    say(fault.message);
  }
});

new ResizeObserver(() => { sheet.fit(); draw(); }).observe(sheet.element);
find("save").href = `${room.dataset.save}?${answer.address}`;
find("to-compare").href = `/compare?${answer.address}`;
draw();
