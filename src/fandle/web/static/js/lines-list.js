// Which lines are looked for: to hit, to pot or to bank, over how many rails, into which pocket. Asks for long lists by itself.

import { count, post } from "./ask.js";
import { put, say } from "./dom.js";

const REST = 160; // ms without a new answer before a long list is asked for, while something is held
const SOON = 15; // and once it is let go
const ANY = "any"; // in place of a pocket

export function linesList(element, drawing, url, { question, onChange, onLines }) {
  const kinds = [...element.querySelectorAll("[data-kind]")];
  const counts = [...element.querySelectorAll("[data-count]")];
  const pocketOut = element.querySelector("#pocket-out");
  const pockets = [...drawing.querySelectorAll("[data-pocket]")];
  let timer = 0;
  let number = 0;
  let busy = false;
  let owed = false;
  let waiting = null; // what the next list is to be about
  let known = { about: null, lines: null };
  let state = { kind: "kick", count: "1", pocket: null };

  const goals = { kick: { kind: "kick", pocket: null }, pot: { kind: "kick", pocket: ANY }, bank: { kind: "bank", pocket: null } };
  const goal = () => (state.kind === "kick" && state.pocket ? "pot" : state.kind);
  for (const button of kinds) button.addEventListener("click", () => onChange({ ...goals[button.dataset.kind], hit: 0, rails: null }, "kind"));
  for (const button of counts) button.addEventListener("click", () => onChange({ count: button.dataset.count, rails: null }, "count"));

  // A pocket tapped is where the ball is to go; tapped again, any will do.
  function tap(pocket) {
    const { pocket: id } = pocket.dataset;
    onChange({ pocket: state.pocket === id ? goals[goal()].pocket : id, hit: 0 }, "pocket");
  }
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
    const potting = goal() !== "kick";
    for (const button of kinds) put(button, { "aria-pressed": button.dataset.kind === goal() });
    for (const button of counts) put(button, { "aria-pressed": button.dataset.count === state.count });
    for (const pocket of pockets) {
      const chosen = pocket.dataset.pocket === state.pocket;
      pocket.classList.toggle("chosen", chosen);
      if (potting) {
        put(pocket, { tabindex: "0", role: "button", "aria-pressed": chosen, "aria-label": called(pocket.dataset.pocket) });
      } else for (const name of ["tabindex", "role", "aria-pressed", "aria-label"]) pocket.removeAttribute(name);
    }
    const into = state.pocket && state.pocket !== ANY ? `into ${called(state.pocket)}` : "into any pocket: tap one";
    say(pocketOut, potting ? into : element.dataset.over);
  }

  // A list that is still to come counts as a question under way.
  function owe(now) {
    if (now !== owed) count(now ? 1 : -1);
    owed = now;
  }

  // The list follows when the answers have come to rest; late ones are dropped by number. `about` is
  // what the list depends on: choosing another line of it asks for nothing.
  function follow(lines, about, held) {
    clearTimeout(timer);
    number += 1;
    if (lines === null && about === known.about) lines = known.lines;
    element.classList.toggle("late", lines === null);
    owe(lines === null);
    if (lines !== null) {
      known = { about, lines };
      onLines(lines);
      return;
    }
    timer = setTimeout(ask, held ? REST : SOON, about);
  }

  // One list is under way at a time; if the question has moved on meanwhile, the newest is asked then.
  async function ask(about) {
    waiting = about;
    if (busy) return;
    busy = true;
    while (waiting !== null) {
      const [mine, asked] = [number, waiting];
      waiting = null;
      try {
        const reply = await post(url, JSON.stringify(question()));
        if (mine !== number) continue;
        element.classList.remove("late");
        known = { about: asked, lines: reply.lines };
        owe(false);
        onLines(reply.lines);
      } catch {
        owe(false);
        // the answer itself tells what is wrong; the old list stays, marked as late
      }
    }
    busy = false;
  }

  // Rails of the best lines known, open ones only.
  const first = (most) => (known.lines ?? []).filter((line) => line.solved).slice(0, most).map((line) => line.rails);

  // What is to be done with the ball.
  const verb = (line) => (goal() === "pot" ? "Pot" : goal() === "bank" ? "Bank" : line?.rails === "straight" ? "Shoot" : "Hit") + " ";

  const shutWord = () => (goal() === "pot" ? "without a pot" : "blocked");

  return { show, follow, first, verb, shutWord };
}
