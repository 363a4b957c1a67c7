// Name the aim: the mark is tapped on the rail or typed, or one of two answers chosen, against the clock.

import { post } from "./ask.js";
import { html, say, svg } from "./dom.js";
import { setPath } from "./paths-layer.js";
import { freshUid as uid } from "./uid.js";

const find = (id) => document.getElementById(id);
const STEP = 0.05; // diamonds, one arrow key

export function makeQuiz({ sheet, table, urls, asked, drawBalls, sums, begin }) {
  let question = null;
  let reply = null;
  let mark = null; // diamonds, not yet answered
  let since = 0;
  let ticking = 0;

  function draw() {
    if (!question) return;
    const px = sheet.mmPerPixel();
    const parts = [];
    if (question.rail) {
      const end = question.rail === "far" || question.rail === "near" ? 8 : 4;
      const [[x1, y1], [x2, y2]] = [sheet.onRail(question.rail, 0, 0), sheet.onRail(question.rail, end, 0)];
      parts.push(svg("path", { class: "asked-rail", d: `M${x1} ${y1}L${x2} ${y2}` }));
      for (const [at, kind] of [[reply?.at, "truth"], [mark, "named"]]) {
        if (at === undefined || at === null) continue;
        const [cx, cy] = sheet.onRail(question.rail, at, 0);
        parts.push(svg("circle", { class: kind, cx, cy, r: 8 * px }));
      }
    }
    find("layer-guess").replaceChildren(...parts);
    setPath("shot", reply?.path ?? "");
  }

  function name(at) {
    const most = question.rail === "far" || question.rail === "near" ? 8 : 4;
    mark = Math.min(Math.max(at, 0), most);
    find("mark-at").value = mark.toFixed(2);
    draw();
  }

  function tick() {
    const part = (Date.now() - since) / 1000 / question.seconds;
    find("clock").value = Math.min(part, 1);
    if (part >= 1) say(find("told"), "The time is up: an answer still counts, as a slow one.");
    else ticking = setTimeout(tick, 200);
  }

  async function ask() {
    const found = await asked(() => post(urls.ask, JSON.stringify({ table, sums: sums() })));
    if (!found) return;
    begin();
    document.getElementById("practice").classList.add("asking");
    question = found;
    reply = mark = null;
    since = Date.now();
    drawBalls(question.balls);
    say(find("question"), question.text);
    say(find("level"), question.level);
    say(find("told"), "");
    find("told").className = "told";
    find("mark-at").value = "";
    find("answer-form").hidden = question.options.length > 0;
    const long = question.rail === "far" || question.rail === "near";
    say(find("mark-label"), question.rail ? `Your mark, diamonds from the ${long ? "left" : "bottom"}` : "The number to shoot");
    find("options").replaceChildren(...question.options.map((option, k) => {
      const key = html("button", { class: "btn tool strong", type: "button", "data-option": option }, question.says[k]);
      key.addEventListener("click", () => answer(option));
      return key;
    }));
    find("next-question").textContent = "Another one";
    find("clock").hidden = false;
    clearTimeout(ticking);
    tick();
    draw();
  }

  async function answer(given) {
    if (!question || reply) return;
    const { topic, seed, difficulty } = question;
    const seconds = (Date.now() - since) / 1000;
    const found = await asked(() => post(urls.reply, JSON.stringify({ uid: uid(), table, topic, seed, difficulty, given, seconds: Math.min(seconds, 3600) })));
    if (!found) return;
    reply = found;
    clearTimeout(ticking);
    find("clock").hidden = true;
    find("answer-form").hidden = true;
    find("options").replaceChildren();
    find("told").className = `told ${found.right ? "right" : "wrong"}`;
    say(find("told"), found.say);
    say(find("level"), `now: ${found.level}`);
    draw();
    find("next-question").focus();
  }

  find("next-question").addEventListener("click", ask);
  find("answer-form").addEventListener("submit", (event) => {
    event.preventDefault();
    const typed = Number(find("mark-at").value.replace(",", "."));
    if (find("mark-at").value.trim() === "" || Number.isNaN(typed)) {
      say(find("told"), "Type the mark in diamonds, such as 3.5, or tap it on the drawing.");
      return;
    }
    answer(typed);
  });
  find("mark-at").addEventListener("keydown", (event) => {
    const way = { ArrowUp: 1, ArrowDown: -1 }[event.key];
    if (!way || !question?.rail) return;
    event.preventDefault();
    name((mark ?? 0) + way * STEP);
  });
  sheet.element.addEventListener("pointerdown", (event) => {
    if (!question?.rail || reply) return;
    event.preventDefault();
    sheet.element.setPointerCapture(event.pointerId);
    const long = question.rail === "far" || question.rail === "near";
    const put = (moved) => name(Number(sheet.under(moved)[long ? 0 : 1].toFixed(2)));
    put(event);
    const away = new AbortController();
    sheet.element.addEventListener("pointermove", put, { signal: away.signal });
    for (const end of ["pointerup", "pointercancel"]) sheet.element.addEventListener(end, () => away.abort(), { signal: away.signal });
  });

  return {
    redraw: () => { if (question) { drawBalls(question.balls); draw(); } },
    leave: () => {
      if (!question) return;
      clearTimeout(ticking);
      question = reply = mark = null;
      document.getElementById("practice").classList.remove("asking");
      find("clock").hidden = true;
      find("answer-form").hidden = true;
      find("options").replaceChildren();
      for (const id of ["question", "told"]) say(find(id), "");
      find("layer-guess").replaceChildren();
      setPath("shot", "");
    },
  };
}
