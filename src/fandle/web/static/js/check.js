// The check room: one reference shot at a time, entered by dragging; what the shots so far say of the table. Python fits.

import { post, send } from "./ask.js";
import { html, put, say, sentence, svg } from "./dom.js";
import { setPath } from "./paths-layer.js";
import { sheet as makeSheet } from "./sheet.js";
import { toast } from "./toast.js";

const STEP = 0.1; // diamonds, one arrow key; with Shift a hundredth
const KEPT = "fandle-check-"; // shots noted so far, table by table: an interrupted check goes on
const find = (id) => document.getElementById(id);
const room = find("check");
const urls = JSON.parse(room.dataset.urls);
const shots = JSON.parse(room.dataset.state);
const { table } = room.dataset;
const sheet = makeSheet(find("drawing"));
const marksLayer = find("layer-guess");
let noted = JSON.parse(sessionStorage.getItem(KEPT + table) ?? "[]");
let hidden = noted.some((shot) => shot.shooter);
let current = next();
let marks = [];
let stop = null;
let result = null;
let turn = noted.length;
let asking = false;
let behind = false; // has a shot been noted since it was asked?

// The one played least; those that only compare two rails come after two rounds of the others.
function next() {
  const times = ({ id, compares }) => noted.filter(({ shot }) => shot === id).length + (compares ? 1.5 : 0);
  const least = Math.min(...shots.map(times));
  return shots.find((shot) => times(shot) === least);
}

function begin(shot) {
  current = shot;
  marks = shot.marks.map((mark) => ({ ...mark }));
  stop = shot.stop && { ...shot.stop };
  draw();
}

const kept = (value, low, high) => Math.min(Math.max(value, low), high);
const most = (rail) => (rail === "far" || rail === "near" ? 8 : 4);

function draw() {
  const place = noted.filter(({ shot }) => shot === current.id).length;
  const again = place ? `, again (${place + 1})` : "";
  const main = shots.filter(({ compares }) => !compares);
  say(find("step"), current.compares ? `To compare two rails${again}` : `Shot ${main.indexOf(current) + 1} of ${main.length}${again}`);
  say(find("aim"), sentence(`${current.aim}, ${current.stroke}`));
  say(find("where"), sentence(`Cue ball ${current.place.x}, ${current.place.y} in diamonds: ${current.where}`));
  setPath("shot", current.path);
  const [x, y] = sheet.place(current.place.x, current.place.y);
  find("layer-balls").replaceChildren(svg("g", { class: "ball cue", transform: `translate(${x} ${y})` }, svg("circle", { class: "disc", r: sheet.radius })));
  drawMarks();
}

function drawMarks() {
  const px = sheet.mmPerPixel();
  const at = ({ rail, at: where }) => sheet.onRail(rail, where, -sheet.radius);
  const made = marks.map((mark, index) => {
    const name = `${index + 1}. ${mark.rail} rail`;
    const element = landing(name, at(mark), mark.at.toFixed(2), (event) => {
      const [ux, uy] = sheet.under(event);
      mark.at = kept(mark.rail === "far" || mark.rail === "near" ? ux : uy, -0.3, most(mark.rail) + 0.3);
    }, (dx, dy) => { mark.at = kept(mark.at + (mark.rail === "far" || mark.rail === "near" ? dx : dy), -0.3, most(mark.rail) + 0.3); }, px);
    element.dataset.rail = mark.rail;
    return element;
  });
  if (stop) {
    made.push(landing("where it stopped", sheet.place(stop.x, stop.y), "stop", (event) => {
      const [ux, uy] = sheet.under(event);
      stop = { x: kept(ux, 0, 8), y: kept(uy, 0, 4) };
    }, (dx, dy) => { stop = { x: kept(stop.x + dx, 0, 8), y: kept(stop.y + dy, 0, 4) }; }, px));
  }
  const held = [...marksLayer.children].indexOf(document.activeElement);
  marksLayer.replaceChildren(...made);
  if (held >= 0) marksLayer.children[held]?.focus({ preventScroll: true });
}

// A mark that is dragged, or moved by keys.
function landing(name, [x, y], text, onMove, onStep, px) {
  const mark = svg("g", { class: "landing", tabindex: "0", role: "slider", "aria-label": name, "aria-valuetext": text, "data-own-pointer": "", transform: `translate(${x} ${y})` },
    svg("circle", { class: "grip", r: 24 * px }), svg("circle", { class: "dot", r: 7 * px }), svg("text", { y: -17 * px, "font-size": 15 * px }, text));
  mark.addEventListener("pointerdown", (event) => {
    event.preventDefault();
    mark.focus({ preventScroll: true });
    sheet.element.setPointerCapture(event.pointerId); // the mark itself is drawn anew while it moves
    const away = new AbortController();
    const move = (moved) => { onMove(moved); drawMarks(); };
    sheet.element.addEventListener("pointermove", move, { signal: away.signal });
    for (const end of ["pointerup", "pointercancel"]) sheet.element.addEventListener(end, () => away.abort(), { signal: away.signal });
  });
  mark.addEventListener("keydown", (event) => {
    const way = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowDown: [0, 1], ArrowUp: [0, -1] }[event.key];
    if (!way) return;
    event.preventDefault();
    const step = event.shiftKey ? STEP / 10 : STEP;
    const [dx, dy] = sheet.step(...way);
    onStep(dx * step, dy * step);
    drawMarks();
  });
  return mark;
}

function fault(message) {
  say(find("fault"), sentence(message));
  find("fault").hidden = !message;
}

function note(shot) {
  noted.push(shot);
  sessionStorage.setItem(KEPT + table, JSON.stringify(noted));
  ask();
}

function busy(on) {
  for (const id of ["note", "again", "skip", "shooter"]) find(id).disabled = on;
}

// One question at a time: whoever notes on meanwhile is answered with all shots together.
async function ask() {
  behind = true;
  show();
  if (asking) return;
  asking = true;
  while (behind) {
    behind = false;
    await answer();
  }
  asking = false;
  show();
}

async function answer() {
  const known = noted.map(({ shot, landed, rest }) => ({ shot, landed, rest }));
  try {
    result = known.length ? await post(urls.check, JSON.stringify({ table, hidden, shots: known })) : null;
    fault("");
  } catch (error) {
    fault(error.message);
  }
}

function show() {
  find("noted").replaceChildren(...noted.map((shot, index) => {
    const off = html("button", { type: "button", class: "link" }, "Take back");
    off.addEventListener("click", () => {
      const [gone] = noted.splice(index, 1);
      sessionStorage.setItem(KEPT + table, JSON.stringify(noted));
      ask();
      toast("The shot is taken back.", () => { noted.splice(index, 0, gone); ask(); });
    });
    const landed = shot.landed.map(({ at }) => at.toFixed(2)).join(", ");
    return html("li", { class: result?.wild.includes(index) ? "wild" : "" }, html("span", {}, `${index + 1}. ${shot.shot}: ${landed}`), off);
  }));
  const waits = asking || behind;
  find("keep").disabled = waits;
  find("verdict").setAttribute("aria-busy", String(waits));
  find("reads").hidden = !waits;
  find("verdict").replaceChildren(...(result ? [...result.verdict.split(/(?<=\.) /).map((text) => html("p", {}, sentence(text))), html("p", {}, `It plays like ${result.like}.`)] : [html("p", {}, "Two or three shots already tell something. Stop whenever you like.")]));
  find("plays").replaceChildren(...(result ? [playsTable(result.plays)] : []));
  find("says").replaceChildren(...(result?.says ?? []).map((text) => html("li", {}, sentence(text))));
  find("learned").hidden = find("keep-keys").hidden = !result;
  find("learned").querySelector("tbody").replaceChildren(...(result?.learned ?? []).map((row) => html("tr", {}, html("th", { scope: "row" }, row.label), html("td", {}, row.before), html("td", {}, row.now), html("td", {}, row.learned < 0.1 ? "still as assumed" : `${Math.round(100 * row.learned)} %`))));
}

// Short to the left, long to the right, with its 95 % range.
function playsTable(rows) {
  const wide = 0.8; // diamonds either side; what is further off stands at the edge
  const x = (value) => 65 + (60 * Math.max(-wide, Math.min(wide, value))) / wide;
  const body = html("tbody", {}, ...rows.map(({ kind, off, sd, say: words }) => html("tr", {}, html("th", { scope: "row" }, kind),
    html("td", {}, svg("svg", { viewBox: "0 0 130 16", "aria-hidden": "true" }, svg("path", { class: "zero", d: "M65 0V16" }), svg("path", { class: "range", d: `M${x(off - 1.96 * sd)} 8H${x(off + 1.96 * sd)}` }), svg("circle", { class: "dot", cx: x(off), cy: 8, r: 4 }))),
    html("td", { class: "fig" }, words.split(": ").at(-1)))));
  return html("table", { class: "plays" }, html("caption", { class: "visually-hidden" }, "How each kind of shot plays, diamonds"), html("thead", {}, html("tr", {}, html("th", { scope: "col" }, "shot"), html("th", { scope: "col" }, "short · long"), html("th", { scope: "col" }))), body);
}

find("note").addEventListener("click", () => {
  note({ shot: current.id, landed: marks.map(({ rail, at }) => ({ rail, at })), rest: stop });
  begin(next());
});
find("again").addEventListener("click", () => {
  note({ shot: current.id, landed: marks.map(({ rail, at }) => ({ rail, at })), rest: stop });
  begin(current);
});
find("skip").addEventListener("click", () => begin(shots[(shots.indexOf(current) + 1) % shots.length]));
find("shooter").addEventListener("click", async () => {
  busy(true);
  try {
    const read = await post(urls.shooter, JSON.stringify({ table, shot: current.id, turn }));
    turn += 1;
    if (!hidden && noted.length) noted = [];
    hidden = true;
    note({ shot: current.id, ...read, shooter: true });
    begin(next());
  } catch (error) {
    fault(error.message);
  }
  busy(false);
});
find("check-table").addEventListener("change", (event) => { location.href = `${urls.room}?table=${encodeURIComponent(event.target.value)}`; });
// Other numbers for this table, unless somebody else has changed them since they were seen.
async function renew(whole) {
  const { record, edition } = room.dataset;
  const reply = await send("PUT", `${urls.tables}/${record}`, { base: table, whole, was: edition });
  room.dataset.edition = reply.edition;
  return reply;
}
find("keep").addEventListener("click", async () => {
  const own = "own" in room.dataset;
  const name = own ? table : `${room.dataset.label}, checked`;
  const whole = { ...result.table, name };
  try {
    const reply = own ? await renew(whole) : await send("POST", urls.tables, { base: table, name, whole });
    const back = own && reply.before ? async () => { await renew(reply.before); toast("The numbers are as they were."); } : null;
    toast(`${name} now plays with these numbers.`, back);
    put(find("play-on"), { href: `${urls.move}?to=${encodeURIComponent(name)}` });
    find("play-on").hidden = false;
    sessionStorage.removeItem(KEPT + table);
  } catch (error) {
    fault(error.message);
  }
});
for (const key of document.querySelectorAll("[data-back]")) {
  key.addEventListener("click", async () => {
    try {
      const whole = { ...JSON.parse(key.dataset.back), name: table };
      const reply = await renew(whole);
      toast("The table has those numbers again.", () => renew(reply.before));
    } catch (error) {
      fault(error.message);
    }
  });
}
new ResizeObserver(() => { if (sheet.fit()) draw(); }).observe(sheet.element);
document.fonts.ready.then(draw);
begin(current);
ask();
