// The Practice room: tonight's plan, a drill with its tries, the quiz, the progress. Python plans, solves and judges.

import { post, send } from "./ask.js";
import { html, put, say, sentence } from "./dom.js";
import { handsPanel } from "./hands.js";
import { askNickname, takeIn } from "./names.js";
import { deleteKey, olderKey, ownDrills } from "./practice-own.js";
import { practiceDrawing } from "./practice-drawing.js";
import { makeQuiz } from "./practice-quiz.js";
import { drawProgress, drawSideBySide } from "./practice-progress.js";
import { flush, keepForLater } from "./outbox.js";
import { sheet as makeSheet } from "./sheet.js";
import { toast } from "./toast.js";
import { freshUid as uid } from "./uid.js";

const find = (id) => document.getElementById(id);
const room = find("practice");
const urls = JSON.parse(room.dataset.urls);
let entries = JSON.parse(room.dataset.state);
const { table } = room.dataset;
const sheet = makeSheet(find("drawing"));
const KEPT = `fandle-practice-${table}`; // the session under way: an interrupted one goes on
const MINE = "My drills"; // the family of those that players made, which may be many
const TABS = ["tonight", "drills", "quiz", "progress"];
let session = JSON.parse(localStorage.getItem(KEPT) ?? "null") ?? { minutes: 20, parts: null, drill: null, since: null };
let drill = null; // what is set up
let nth = 0; // which of its shots is shown
let tries = []; // uids noted since, to take back
let awake = null;

const BOX = "fandle-practice-outbox"; // tries the server could not take yet
const keep = () => localStorage.setItem(KEPT, JSON.stringify(session));

function fault(message) {
  say(find("fault"), sentence(message));
  find("fault").hidden = !message;
}

async function asked(work) {
  try {
    fault("");
    return await work();
  } catch (error) {
    fault(error.message);
    return null;
  }
}

// The phone on the rail stays lit while a drill is played, where the browser can do that.
async function stayAwake() {
  if (awake || !navigator.wakeLock || document.hidden) return;
  awake = await navigator.wakeLock.request("screen").catch(() => null);
  awake?.addEventListener("release", () => { awake = null; });
}
document.addEventListener("visibilitychange", () => { if (!document.hidden && drill) stayAwake(); });

const drawing = practiceDrawing(sheet);
const shots = () => [drill, ...drill.then];
const drawDrill = () => { if (drill) drawing.shot(shots()[nth]); };

// Without sums: the line is measured with hands and cue, step by step, and its mark is told in words.
const steps = handsPanel(find("hands"), sheet, find("layer-hands"), () => {});
const sums = () => !find("no-sums").checked;

function drawTask() {
  find("keys").hidden = !drill || Boolean(drill.why_not);
  find("print-keys").hidden = find("keys").hidden;
  find("shot-keys").hidden = !drill?.then.length;
  if (!drill) return;
  const shot = shots()[nth];
  say(find("shot-at"), `Shot ${nth + 1} of ${shots().length}`);
  find("shot-back").disabled = nth === 0;
  find("shot-on").disabled = nth === shots().length - 1;
  say(find("title"), drill.title);
  const contacts = shot.marks.map(({ where }) => where).join(", ");
  const { record } = drill;
  const dots = html("span", { class: "dots", role: "img", "aria-label": `last ten: ${record.last.map((hit) => (hit ? "made" : "missed")).join(", ") || "none"}` },
    ...record.last.map((hit) => html("i", { class: hit ? "hit" : "miss" }, hit ? "✓" : "")));
  const { round } = record;
  const streaks = round ? [["this round", `${round.made} of ${round.played}`], ["best round", String(round.best)]] : [["streak", String(record.streak)], ["best", String(record.best)]];
  const minutes = session.since ? Math.floor((Date.now() - session.since) / 60000) : 0;
  find("task").replaceChildren(
    html("div", { class: "task-head" }, html("p", { class: "stroke" }, drill.why_not ? `Not on this table: ${drill.why_not}` : sentence(shot.stroke)),
      html("p", { class: "say" }, drill.say), html("p", { class: "soft" }, `Counts: ${drill.wanted}.`), !sums() && drill.remember ? html("p", {}, `Aim at the ${drill.remember}.`) : "", contacts && html("p", { class: "soft" }, `Contacts: ${contacts}.`)),
    html("p", { class: "score", id: "score" }, ...streaks.map(([word, figure]) => html("span", {}, `${word} `, html("b", {}, figure))), dots,
      html("span", { class: "soft" }, `${record.say}.`), minutes > 0 ? html("span", { class: "soft" }, `${minutes} min`) : ""));
  find("undo").disabled = tries.length === 0;
}

async function setUp(name) {
  const found = await asked(() => post(urls.drill, JSON.stringify({ table, drill: name, sums: sums() })));
  if (!found) return;
  quiz.leave();
  drill = found;
  tries = [];
  nth = drill.record.round?.played ?? 0;
  session = { ...session, drill: name, since: session.drill === name && session.since ? session.since : Date.now() };
  keep();
  drawDrill();
  drawTask();
  steps.load(drill.hands);
  drawLists();
  stayAwake();
}

// A drill that was chosen further down: on a narrow page its table is above.
function seeTable() {
  if (find("title").getBoundingClientRect().bottom < 0) find("title").scrollIntoView({ block: "start" });
}

async function note(made) {
  if (!drill) return;
  const mine = uid();
  const one = { uid: mine, table, drill: drill.key, made };
  const record = await asked(() => post(urls.tries, JSON.stringify(one)).catch((fault_) => {
    if (!fault_.passing) throw fault_;
    keepForLater(one, BOX);
    toast(`Kept in this browser until the server takes it (${fault_.message}).`);
    return null;
  }));
  if (!record) return;
  if (record.reached && !drill.record.reached) toast(`${drill.title}: ${drill.goal}. Reached.`);
  tries.push(mine);
  counted(record);
}

// A round goes on with its next ball.
function counted(record) {
  drill.record = record;
  if (record.round) see(record.round.played);
  entries = entries.map((entry) => (entry.key === drill.key ? { ...entry, made: record.attempts ? `${record.hits} of ${record.attempts}` : "" } : entry));
  drawTask();
  drawLists();
}

function see(number) {
  nth = number;
  drawDrill();
  drawTask();
}
find("shot-back").addEventListener("click", () => see(nth - 1));
find("shot-on").addEventListener("click", () => see(nth + 1));

async function sendWaiting() {
  const sent = await flush(urls.tries, (refused) => toast(`A kept try was refused: ${refused.message}`), BOX);
  if (!sent) return;
  toast(sent === 1 ? "A try that was kept in this browser is saved now." : `${sent} tries that were kept in this browser are saved now.`);
  if (drill) setUp(drill.key);
}
window.addEventListener("online", sendWaiting);

find("print").addEventListener("click", () => window.print());
find("made").addEventListener("click", () => note(true));
find("missed").addEventListener("click", () => note(false));
find("undo").addEventListener("click", async () => {
  const last = tries.pop();
  const record = last && await asked(() => send("DELETE", `${urls.tries}/${last}`));
  if (record) counted(record);
});

function drawLists() {
  const families = [...new Set(entries.map((entry) => entry.family))];
  find("drill-list").replaceChildren(...families.flatMap((family) => [html("h2", { class: "family" }, family),
    ...entries.filter((entry) => entry.family === family).map((entry) => {
      const row = html("button", { class: "entry", type: "button", "data-drill": entry.key, "aria-pressed": String(entry.key === session.drill), disabled: Boolean(entry.why_not) },
        html("span", {}, entry.title, entry.why_not ? html("small", {}, `not on this table: ${entry.why_not}`) : ""), html("span", { class: "fig" }, entry.made));
      row.addEventListener("click", () => setUp(entry.key).then(seeTable));
      if (!entry.key.startsWith("own-")) return row;
      return html("div", { class: "own-row" }, row, deleteKey(urls, entry, () => { entries = entries.filter(({ key }) => key !== entry.key); drawLists(); }));
    }), family === MINE && room.dataset.older ? olderKey(urls, room, (more) => { entries = [...entries, ...more]; drawLists(); }) : ""]));
  drawPlan();
}

function drawPlan() {
  const parts = session.parts ?? [];
  put(find("hand-out"), { href: `${urls.set}?drills=${parts.map(({ key }) => key).join(",")}&name=${encodeURIComponent("Tonight's drills")}&sums=${sums()}` });
  say(find("set-note"), session.note ?? "");
  find("plan").replaceChildren(...parts.flatMap((part, k) => {
    const go = html("button", { class: `btn tool${part.key === session.drill ? " strong" : ""}`, type: "button", "data-part": part.key }, part.key === session.drill ? "Set up" : "Play this");
    go.addEventListener("click", () => setUp(part.key));
    const swap = html("select", { class: "form-select", "aria-label": `Swap ${part.title}` }, html("option", { value: "" }, "Swap for …"), ...part.swaps.map(([name, title]) => html("option", { value: name }, title)));
    swap.addEventListener("change", () => {
      const [key, title] = part.swaps.find(([each]) => each === swap.value);
      const others = part.swaps.filter(([each]) => each !== key);
      session.parts[k] = { ...part, key, title, why: "swapped", say: "your choice", swaps: [...others, [part.key, part.title]] };
      keep();
      drawPlan();
    });
    const item = html("li", { class: part.key === session.drill ? "now" : "" }, html("b", {}, `${part.title}, ${part.minutes} min`), html("p", { class: "why" }, sentence(part.say)), html("div", { class: "keys" }, go, swap));
    return part.pause ? [item, html("li", { class: "pause" }, "A break: stand up, shake out the wrist, look into the distance.")] : [item];
  }));
}

async function plan(minutes) {
  for (const key of document.querySelectorAll("[data-minutes]")) key.setAttribute("aria-pressed", String(Number(key.dataset.minutes) === minutes));
  const found = await asked(() => post(urls.tonight, JSON.stringify({ table, minutes })));
  if (!found) return;
  session = { ...session, minutes, parts: found.parts, note: "" };
  keep();
  drawPlan();
}
for (const key of document.querySelectorAll("[data-minutes]")) key.addEventListener("click", () => plan(Number(key.dataset.minutes)));

// A set that was handed out takes the place of the plan; a player's results come beside one's own.
find("open-set").addEventListener("change", async (event) => {
  const [file] = event.target.files;
  event.target.value = "";
  const found = file && await asked(async () => post(urls.readSet, await file.text(), "text/plain"));
  if (!found) return;
  session = { ...session, parts: found.parts, sums: found.sums, note: [found.name, found.note].filter(Boolean).join(": ") };
  find("no-sums").checked = !found.sums;
  keep();
  drawPlan();
});
find("open-results").addEventListener("change", async (event) => {
  const [file] = event.target.files;
  event.target.value = "";
  const found = file && await asked(() => takeIn(urls.readResults, file, "application/json"));
  if (!found) return;
  toast(`${found.player}: ${found.new} new tries.`);
  show("progress");
});

function show(tab) {
  for (const each of TABS) {
    find(each).hidden = each !== tab;
    put(find(`tab-${each}`), { "aria-selected": String(each === tab), tabindex: each === tab ? "0" : "-1" });
  }
  if (tab === "progress") {
    drawProgress(find("changes"), urls.progress, fault);
    drawSideBySide(find("side-by-side"), urls.side);
  }
  if (tab !== "quiz") quiz.leave();
}
for (const [k, tab] of TABS.entries()) {
  find(`tab-${tab}`).addEventListener("click", () => show(tab));
  find(`tab-${tab}`).addEventListener("keydown", (event) => {
    const way = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    if (!way) return;
    event.preventDefault();
    const next = TABS[(k + way + TABS.length) % TABS.length];
    show(next);
    find(`tab-${next}`).focus();
  });
}

askNickname(room, [find("my-results")]);

const quiz = makeQuiz({ sheet, table, urls, asked, drawBalls: drawing.balls, sums, begin: () => {
  steps.load([]);
  drawing.clear();
  drill = null;
  find("keys").hidden = find("print-keys").hidden = find("shot-keys").hidden = true;
  find("task").replaceChildren();
  say(find("title"), "Name the aim");
} });

document.addEventListener("keydown", (event) => {
  if (event.target.closest("input, select, textarea, button") || !drill || event.ctrlKey || event.metaKey) return;
  if (event.key === "m" || event.key === "+") note(true);
  if (event.key === "x" || event.key === "-") note(false);
  if (event.key === "Backspace" || event.key === "u") find("undo").click();
});
find("practice-table").addEventListener("change", (event) => { location.href = `${urls.room}?table=${encodeURIComponent(event.target.value)}`; });
new ResizeObserver(() => { if (sheet.fit()) { drawDrill(); quiz.redraw(); } }).observe(sheet.element);

find("no-sums").checked = session.sums === false;
find("no-sums").addEventListener("change", () => {
  session.sums = sums();
  keep();
  if (session.drill) setUp(session.drill);
  else drawPlan();
});
ownDrills(urls, (made) => {
  if (made.on !== table) location.href = `${urls.room}?table=${encodeURIComponent(made.on)}#drill=${made.key}`;
  else openOwn(made.key, [made, ...entries.filter((entry) => entry.key !== made.key)]);
});
function openOwn(name, all = entries) {
  entries = all;
  show("drills");
  setUp(name);
}

drawLists();
const linked = () => decodeURIComponent(/^#drill=(.+)$/.exec(location.hash)?.[1] ?? "");
const wanted = linked();
if (wanted) openOwn(wanted);
window.addEventListener("hashchange", () => { if (linked()) openOwn(linked()); });
if (location.hash === "#new-drill") {
  show("drills");
  find("own").open = true;
}
if (session.parts) {
  for (const key of document.querySelectorAll("[data-minutes]")) key.setAttribute("aria-pressed", String(Number(key.dataset.minutes) === session.minutes));
} else {
  plan(session.minutes);
}
if (session.drill && !wanted) setUp(session.drill);
sendWaiting();
