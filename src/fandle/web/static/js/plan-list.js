// Which line? The goal, the pocket called, and the plan: asked for when the answers rest, told line by line, stopped by a key.

import { count } from "./ask.js";
import { put, say } from "./dom.js";
import { answered } from "./ndjson.js";

const REST = 160; // ms without a new answer before the plan is asked for, while something is held
const SOON = 15; // and once it is let go

export function planList(element, drawing, url, { question, onChange, onRows }) {
  const keys = [...element.querySelectorAll("[data-goal]")];
  const pocketOut = element.querySelector("#pocket-out");
  const bar = element.querySelector("#planning");
  const pockets = [...drawing.querySelectorAll("[data-pocket]")];
  let timer = 0;
  let work = null; // the plan under way: its own controller
  let owed = false;
  let every = false; // are all lines asked for?
  let known = { layout: null, about: null };
  let state = { goal: "hit", called: null };

  for (const key of keys) key.addEventListener("click", () => onChange({ goal: key.dataset.goal, called: null }, "goal"));
  bar.querySelector("button").addEventListener("click", stop);

  // A pocket tapped is where the ball is to go; tapped again, any will do.
  const tap = (pocket) => onChange({ goal: "pot", called: state.called === pocket.dataset.pocket ? null : pocket.dataset.pocket }, "pocket");
  for (const pocket of pockets) {
    pocket.addEventListener("click", () => tap(pocket));
    pocket.addEventListener("keydown", (event) => {
      if (event.key !== "Enter" && event.key !== " ") return;
      event.preventDefault();
      tap(pocket);
    });
  }

  // names: what this screen calls the pockets
  function show(next, names) {
    state = next;
    const called = (id) => names.find((each) => each.id === id)?.name ?? id;
    const potting = state.goal === "pot";
    for (const key of keys) put(key, { "aria-pressed": key.dataset.goal === state.goal });
    for (const pocket of pockets) {
      const chosen = pocket.dataset.pocket === state.called;
      pocket.classList.toggle("chosen", chosen);
      if (potting) {
        put(pocket, { tabindex: "0", role: "button", "aria-pressed": chosen, "aria-label": called(pocket.dataset.pocket) });
      } else for (const name of ["tabindex", "role", "aria-pressed", "aria-label"]) pocket.removeAttribute(name);
    }
    say(pocketOut, potting ? state.called ? called(state.called) : "any pocket" : "");
  }

  // What is still to be told counts as a question under way, until its first lines are there.
  function owe(now) {
    if (now !== owed) count(now ? 1 : -1);
    owed = now;
    element.classList.toggle("late", now);
  }

  function working(progress) {
    put(bar, { "aria-hidden": String(progress === null) });
    bar.classList.toggle("on", progress !== null);
    bar.querySelector("i").style.width = `${Math.round(100 * (progress ?? 0))}%`;
  }

  // What is under way is about something that has changed.
  function drop() {
    if (work === null && timer === 0) return;
    stop();
    forget();
  }

  function stop() {
    clearTimeout(timer);
    timer = 0;
    work?.abort();
    work = null;
    owe(false);
    working(null);
  }

  // A new answer: the plan is asked for again where it is about something else. layout: what the lines depend on;
  // stroke: what only changes what is said of them, so that the rows stay meanwhile.
  function follow(layout, stroke, held) {
    const about = layout + stroke;
    if (about === known.about && (work !== null || timer === 0)) return;
    const other = layout !== known.layout;
    if (other) every = false;
    stop();
    known = { layout, about };
    owe(true);
    timer = setTimeout(ask, held ? REST : SOON, other);
  }

  // Every line of the reply is JSON; the last is the whole plan. Late ones are dropped with their controller.
  async function ask(other) {
    timer = 0;
    const mine = new AbortController();
    work = mine;
    working(0);
    try {
      for await (const found of answered(url, { ...question(), all: every }, mine.signal)) {
        if (mine !== work) return;
        tell(found, other);
      }
    } catch {
      // stopped, or the answer itself tells what is wrong: the rows that are known stay
    }
    if (mine === work) stop();
  }

  function tell(found, other) {
    const whole = "goal" in found;
    working(whole ? null : found.progress);
    owe(false);
    if (whole || other) onRows(found, whole);
  }

  function all() {
    if (every) return;
    stop();
    every = true;
    ask(false);
  }

  // The player is another: what is known of the lines does not hold.
  function forget() {
    known = { layout: null, about: null };
  }

  // What is to be done with the ball.
  const verb = (line) => (state.goal === "pot" ? (state.kind === "bank" ? "Bank" : "Pot") : line?.rails === "straight" ? "Shoot" : "Hit") + " ";

  return { show, follow, all, drop, forget, verb };
}
