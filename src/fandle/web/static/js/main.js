// The Table room. State goes to the server, the answer comes back, everything is drawn from it.

import { showAddress } from "./address-bar.js";
import { asker, send } from "./ask.js";
import { ballEdits } from "./ball-edits.js";
import { ballMenu } from "./ball-menu.js";
import { ballsLayer } from "./balls-layer.js";
import { ballsPanel } from "./balls-panel.js";
import { farView, help } from "./help.js";
import { makeHistory } from "./history.js";
import { shortcuts } from "./keys.js";
import { labels as makeLabels } from "./labels.js";
import { lateSteps, showMirror } from "./late.js";
import { loupe } from "./loupe.js";
import { drawCount, drawMark, drawWords } from "./marks-layer.js";
import { drawRests } from "./rests-layer.js";
import { openMenu } from "./open-menu.js";
import { notePanel } from "./note.js";
import { drawPaths, setPath } from "./paths-layer.js";
import { drawAnswer, drawTask } from "./panels.js";
import { lineChoice } from "./line-choice.js";
import { drawAfter, drawChain, drawCountPanel } from "./why-panels.js";
import { player } from "./player.js";
import { sheet as makeSheet } from "./sheet.js";
import { sheets } from "./sheets.js";
import { instead } from "./instead.js";
import { tabs as makeTabs } from "./tabs.js";
import { layoutTitle as makeTitle } from "./layout-title.js";
import { toast } from "./toast.js";
import { planList } from "./plan-list.js";
import { gameChoice } from "./game-choice.js";
import { carry, cookie, readCookie, settings } from "./settings.js";
import { atMost, say as sayIn, sentence, whenChanged } from "./dom.js";
import { strokePanel } from "./stroke-panel.js";

const room = document.getElementById("room");
const wanted = location.hash; // what another room's header asked for; the address is written anew below
const urls = JSON.parse(room.dataset.urls);
const find = (id) => document.getElementById(id);
const sheet = makeSheet(find("drawing"));
const labels = makeLabels(sheet, find("layer-labels"));

let answer = JSON.parse(room.dataset.state);
let state = stateOf(answer, new URLSearchParams(answer.address).get("rails"));
let chosen = null;
let wrong = new Set();
const own = /&own=[^&]*/.exec(location.search)?.[0] ?? ""; // the link holds the only copy of a table that came with it
const title = makeTitle(find("layout-title"));
let pressed = false; // is a pointer down anywhere: a ball, the tip, a slider
for (const type of ["pointerdown", "pointerup", "pointercancel"]) window.addEventListener(type, () => { pressed = type === "pointerdown"; }, true);

function stateOf(reply, rails) {
  const { speed, side, up, cue, elevation } = reply.stroke;
  return { layout: reply.layout, stroke: { speed, side, up, cue, elevation }, rails, hit: reply.kind === "kick" && reply.pocket ? 0 : reply.hit, kind: reply.kind, pocket: reply.pocket, goal: reply.goal, called: reply.called, method: reply.method, frame: reply.frame, zones: reply.zones, away: reply.away, next: reply.next };
}

const wish = () => ({ layout: state.layout, ...state.stroke, goal: state.goal, frame: state.frame, zones: state.zones, away: state.away, next: state.next, ease: true });
const question = () => ({ ...wish(), rails: state.rails ?? answer.chosen?.rails ?? null, hit: state.hit, kind: state.kind, pocket: state.pocket, called: state.called, method: state.method });
const planQuestion = () => ({ ...wish(), pocket: state.goal === "pot" ? state.called : null });
const ask = asker(urls.answer, accept, refuse);
document.addEventListener("engine-ready", () => { finder.forget(); ask({ ...question(), rails: state.rails }); });

// Another ball, goal, pocket, game or stop: the best line is chosen anew.
const FRESH = new Set(["target", "goal", "pocket", "game", "zone", "next"]);

function put(next, kind) {
  state = next;
  wrong = new Set();
  finder.drop();
  later?.goals.drop();
  later?.zones.draw();
  drawBalls();
  labels.set();
  ask(FRESH.has(kind) ? { ...question(), rails: null, kind: "kick", pocket: null, hit: 0 } : question());
}

function change(next, kind) {
  steps.remember(state, kind);
  if (next.layout) title.changed();
  choice.renew(kind === "zone" || kind === "next" || next.goal === "safe");
  put({ ...state, ...next, ...(FRESH.has(kind) && { rails: null }), stroke: { ...state.stroke, ...next.stroke } }, kind);
}

// The address names a line only where the player has chosen it.
function addressOf(reply) {
  const query = reply.address.split("&").filter((part) => state.rails !== null || !/^(rails|kind|pocket)=/.test(part));
  return [...query, ...title.query()].join("&");
}

function accept(reply) {
  const moved = JSON.stringify([reply.layout, reply.chosen?.rails]) !== JSON.stringify([answer.layout, answer.chosen?.rails]);
  answer = reply;
  const { stroke, kind, pocket, hit } = stateOf(reply, state.rails);
  state = { ...state, stroke, ...(reply.lines && { kind, pocket, hit, layout: { ...state.layout, target: reply.layout.target } }) };
  choice.accept(reply);
  settle();
  follow();
  say("");
  draw(moved);
}

// A ball put into rubber or too far into a pocket lies beside it, once it is let go.
function settle() {
  if (!pressed && !ask.busy()) state = { ...state, layout: { ...state.layout, balls: answer.layout.balls } };
}

function follow() {
  const query = addressOf(answer);
  showAddress(`?${query}${own}`);
  carry(query);
  find("save").href = `${room.dataset.save}?${answer.address}`;
}

function refuse(fault) {
  say(fault.message);
  if (fault.balls.length) wrong = new Set(fault.balls);
  stale(true);
  drawBalls();
  labels.set();
}

// An answer that no longer holds is dimmed, and its keys with it.
function stale(on) {
  room.classList.toggle("stale", on);
  for (const part of ["answer", "note", "film"]) find(part).toggleAttribute("inert", on);
}

function say(message) {
  const element = find("fault");
  sayIn(element, sentence(message));
  element.hidden = !message;
  if (!message) stale(false);
}

const steps = makeHistory({ undo: find("undo"), redo: find("redo") }, put, {
  undoNote: async (uid) => { await notes.takeBack(uid); toast("The note is taken back."); },
  redoNote: async (uid) => { await notes.bringBack(uid); toast("The note is in the log again."); },
});
const [undo, redo] = [() => steps.undo(state), () => steps.redo(state)];
find("undo").addEventListener("click", undo);
find("redo").addEventListener("click", redo);

const edits = ballEdits(urls.add, { state: () => state, change, say, onAdded: (id) => { chosen = id; } });
const onMove = (...moved) => edits.move([moved]);
const onChoose = (id) => { chosen = id; drawBalls(); labels.set(); };
const onTarget = (id) => change({ layout: { ...state.layout, target: id } }, "target");
const tabs = makeTabs(document.querySelector(".tabs"), () => { drawMirror(); drawBalls(); later?.after.load(); });
sheets(room);
const menu = ballMenu(find("ball-menu"), sheet, { onTarget, onRemove: edits.remove, onNext: (id) => change({ next: id, goal: "pot" }, "next"), onSpot: (id) => kept.toSpot(id), onPick: (id) => layer.pick(id), onPosition: (id) => { tabs.show("tab-balls"); panel.focus(id); } });
const lens = loupe(find("loupe"), sheet);
const layer = ballsLayer(sheet, find("layer-balls"), labels, {
  onMoves: edits.move, onChoose, onRemove: edits.remove,
  onMenu: (id) => menu.open(state.layout.balls.find((ball) => ball.id === id), state.layout.target),
  onDrag: (drag) => {
    lens(drag);
    if (drag) return;
    settle();
    drawBalls();
    speak();
  },
});
const panel = ballsPanel(find("balls"), find("units"), find("tray"), JSON.parse(room.dataset.units), { onMove, onChoose, onTarget, onRemove: edits.remove, onAdd: edits.add });
const drawPanel = atMost(200, panel.draw); // text fields are slow to paint: they follow a drag a little more seldom
const drawStroke = whenChanged(strokePanel(room, (part, kind) => change({ stroke: { ...part } }, kind), (hit) => change(state.kind === "kick" ? { hit, pocket: null } : { hit }, "hit"), (cue) => send("PUT", urls.preferences, { cue }).catch((fault) => toast(fault.message))));
const film = player(sheet, find("layer-film"), find("layer-balls"), Object.fromEntries(["play", "step", "slow", "skip", "moment"].map((id) => [id, find(id)])));
const notes = notePanel(find("note"), sheet, [find("layer-note"), find("layer-stop")], urls, question, (uid) => steps.note(uid), (edit) => change(edit, "miss"));
const kept = openMenu(urls, {
  state: () => state,
  say,
  kept: title.kept,
  onSaved: (saved) => { title.set(saved); follow(); },
  onLayout: (edited, kind) => {
    chosen = null;
    const stroke = "side" in edited ? { side: edited.side } : {};
    change({ layout: edited.layout, stroke, rails: edited.rails, hit: edited.hit ?? 0 }, edited.rails ? kind : "game");
  },
});
const finder = planList(find("ways"), sheet.element, urls.plan, { question: planQuestion, onChange: change, onRows: (found, whole) => choice.follow(found, whole) });
const choice = lineChoice({ list: find("lines"), gain: find("gain"), withheld: () => room.classList.contains("withheld"), sheet, ends: find("layer-ends") }, {
  state: () => state, answer: () => answer, take: (part) => { state = { ...state, ...part }; },
  ask: (rails) => ask({ ...question(), rails }), choose: (part) => change(part, "rails"), look: (path) => setPath("other-path", path), onAll: finder.all, onDrawn: (row) => later?.after.drawn(row),
});
let later = null; // what comes after the hit, once it is there
import("./aftermath.js").then(({ aftermath }) => {
  later = aftermath(sheet, urls, {
    state: () => state, onChange: change, question, isBall: layer.under, menu, isShown: () => tabs.shown() === "tab-after",
    onLine: (row, goal) => change({ goal, called: null, ...choice.of(row) }, "rails"),
  });
  draw();
});
const game = gameChoice(find("game"), find("not-on"), (layout) => change({ layout: { ...state.layout, ...layout } }, "game"));
const holder = instead(find("instead"), urls.instead, { question, onStroke: ({ speed, side, up }, what) => change({ stroke: { speed, side, up } }, `hold ${what}`) });
const guided = lateSteps(find("steps-start"), (bySteps) => bySteps(find("by-steps"), sheet, find("layer-guess"), {
  answer: () => answer,
  onWithhold: (on) => {
    room.classList.toggle("withheld", on);
    if (on) tabs.show("tab-balls");
    draw();
  },
}));
help(JSON.parse(room.dataset.words), urls, () => { finder.forget(); put(state); });
import("./print.js").then(({ printSheet }) => printSheet(find("print-sheet"), JSON.parse(room.dataset.units), () => state.layout));
const far = () => farView(answer);
find("far-open").addEventListener("click", (event) => { event.preventDefault(); far(); });
document.addEventListener("click", (event) => ({ undo, redo, large: far })[event.target.closest("[data-do]")?.dataset.do]?.());
shortcuts({ undo, redo, p: film.toggle, s: film.step, r: far, o: kept.open, "?": settings.open, n: () => notes.focus() });

function drawMirror() {
  if (tabs.shown() === "tab-mirror") showMirror(find("mirror"), answer);
}

function drawBalls() {
  layer.draw(state.layout.balls, state.layout.target, chosen, wrong);
  if (tabs.shown() === "tab-balls") drawPanel(state.layout, chosen, answer.axes, answer.tray);
}

const task = whenChanged((headline, verb) => drawTask(find("task"), headline, verb));
const countPanel = whenChanged((count) => drawCountPanel(find("count"), count, (method) => change({ method }, "method")));
const chainPanel = whenChanged((line) => drawChain(find("chain"), line));
const afterPanel = whenChanged((line) => drawAfter(find("after-panel"), line));

// What a screen reader is told once a drag has ended.
function speak() {
  const line = room.classList.contains("withheld") ? null : answer.chosen;
  sayIn(find("spoken"), line?.solved ? `${line.lead}, ${line.big} ${line.counted_from}` : line?.reason ?? "");
}

function drawMarks(shown) {
  const line = room.classList.contains("withheld") ? null : shown;
  drawMark(sheet, find("layer-mark"), labels, line, answer.frame);
  drawCount(sheet, find("layer-count"), labels, line ? answer.count : null);
  drawWords(sheet, labels);
  drawRests(sheet, find("layer-rests"), labels, line?.solved ? line.drawing : null);
  labels.set();
}

function draw(moved = false) {
  const line = answer.chosen;
  const drawing = line?.solved ? line.drawing : null;
  drawBalls();
  drawPaths(drawing);
  drawMarks(line);
  drawMirror();
  drawAnswer(find("answer"), answer, { onFrame: (frame) => change({ frame }, "frame") });
  finder.show(state, answer.pockets);
  game(answer);
  task(answer.headline, finder.verb(line));
  later?.zones.draw();
  choice.show();
  later?.after.draw(answer);
  finder.follow(JSON.stringify([answer.layout, answer.goal, answer.called, answer.frame, answer.upright, answer.zones, answer.away, answer.next]), JSON.stringify(answer.stroke), pressed);
  countPanel(answer.count ?? null);
  chainPanel(line);
  afterPanel(line);
  sayIn(find("tab-chain"), line?.solved ? `Why ${line.big}` : "Why this number");
  holder.load(line, answer.frame, moved);
  const alone = new Set(drawing?.involved ?? []);
  for (const ball of find("layer-balls").children) ball.toggleAttribute("data-aside", alone.size > 0 && !alone.has(ball.dataset.ball));
  drawStroke(answer.stroke, answer.hit, answer.hit_text);
  notes.load(line, moved);
  film.load(drawing);
  guided.load();
  if (!pressed) speak();
}

find("only").addEventListener("click", () => {
  const on = find("only").getAttribute("aria-pressed") !== "true";
  find("only").setAttribute("aria-pressed", String(on));
  sheet.element.classList.toggle("only-involved", on);
});

// Rails are called as the drawing lies: when it turns, the words are asked for again.
function turned() {
  const now = sheet.upright ? "1" : "0";
  if ((readCookie("fandle-upright") ?? "0") === now) return;
  cookie("fandle-upright", now);
  ask(question());
}

new ResizeObserver(() => {
  if (!sheet.fit()) return;
  turned();
  draw();
}).observe(sheet.element);
document.fonts.ready.then(() => labels.set());
import("./zoom.js").then(({ zoom }) => zoom(sheet, () => { drawBalls(); drawMarks(answer.chosen); later?.zones.draw(); }));
follow();
turned();
draw();
if (wanted === "#large") far();
if (wanted === "#open") kept.open();
