// Step by step, as one goes at the table: the mark is withheld until the player has committed to one.

import { html, sentence, svg } from "./dom.js";

const ASKS = { natural: "Your perfect-mirror mark", count: "Your count", commit: "Your mark" };

// The steps for one line. `ask` names a step at which the player sets a mark; `told` is what it then shows.
function stepsOf(answer) {
  const { chosen, count, headline } = answer;
  const system = count?.applies ? count.methods.find((each) => each.chosen)?.title : null;
  const found = [
    { do: `Look from ${headline.ball} back to the cue ball: ${headline.way}. Which legs are open?` },
    { do: `Choose the way and the spin in the list and the stroke below. Now: ${chosen.lead}, ${answer.stroke.speed_text}, ${answer.stroke.side_text === "none" ? "no spin" : answer.stroke.side_text}.` },
    { do: "If the table were a perfect mirror: where would you aim?", ask: "natural", is: chosen.answer.natural.nose },
  ];
  if (system) {
    found.push({ do: `Count it: ${system}. ${count.say.split(";")[0]}.`, ask: "count", is: count.aim.nose });
    if (count.steps.length > 1) found.push({ do: `Shift it: ${count.steps.join(", ")}.` });
  }
  const spin = answer.stroke.side_text === "none" ? "no spin" : [answer.stroke.side_text, chosen.running].filter(Boolean).join(", ");
  found.push(
    { do: `Correct it for ${answer.stroke.speed_text} and ${spin}: which way does that move the mark?` },
    { do: "Find something to remember: a diamond, half-way between two, the edge of a jaw. Then commit.", ask: "commit", is: chosen.answer.corrected.nose },
  );
  return found;
}

export function bySteps(element, sheet, group, { answer, onWithhold }) {
  let steps = [];
  let at = -1; // which step; −1 while nobody goes by steps
  let mark = 4; // the player's, diamonds at the cushion edge
  const given = {}; // the player's marks by step

  const line = () => answer().chosen;

  function end() {
    at = -1;
    element.hidden = true;
    group.replaceChildren();
    onWithhold(false);
  }

  function start() {
    if (!line()?.solved || line().rails === "straight") return false;
    steps = stepsOf(answer());
    at = 0;
    mark = line().rail === "far" || line().rail === "near" ? 3 : 1.5;
    onWithhold(true);
    draw();
    return true;
  }

  function pointer() {
    group.replaceChildren();
    if (at < 0 || !steps[at].ask) return;
    const px = sheet.mmPerPixel();
    const half = (8 * px) / sheet.unit(line().rail);
    const points = [[mark, 0], [mark - half, 15 * px], [mark + half, 15 * px]].map(([where, out]) => sheet.onRail(line().rail, where, out).join(","));
    group.append(svg("polygon", { class: "guess", points: points.join(" ") }));
  }

  function key(text, act, id, strong = false) {
    const button = html("button", { type: "button", class: `btn tool${strong ? " strong" : ""}`, id }, text);
    button.addEventListener("click", act);
    return button;
  }

  function set(step) {
    const whole = line().rail === "far" || line().rail === "near" ? 8 : 4;
    const out = html("output", { for: "guess" }, mark.toFixed(2));
    const field = html("input", { type: "range", class: "form-range", id: "guess", min: "0", max: String(whole), step: "0.05", value: String(mark) });
    field.addEventListener("input", () => {
      mark = Number(field.value);
      out.textContent = mark.toFixed(2);
      pointer();
    });
    return [html("label", { for: "guess" }, `${ASKS[step.ask]}, ${line().counted_from} `, out), field];
  }

  function next() {
    const step = steps[at];
    if (step.ask && !(step.ask in given)) {
      given[step.ask] = mark;
      if (step.ask === "commit") reveal();
      else told(step);
      return;
    }
    at += 1;
    draw();
  }

  function told(step) {
    const off = mark - step.is;
    element.querySelector(".step-do").after(html("p", { class: "step-told" }, `It is ${step.is.toFixed(2)}; yours is ${Math.abs(off).toFixed(2)} ${Math.abs(off) < 0.005 ? "off" : off > 0 ? "too far along" : "too near"}.`));
  }

  // The mark at last, and how near one came.
  function reveal() {
    const { less, more } = line().drawing.mark;
    const off = mark - steps[at].is;
    const inside = mark >= less && mark <= more;
    const words = inside ? "You would have hit it." : "Outside the room for error.";
    onWithhold(false);
    element.replaceChildren(
      html("p", { class: "step-do" }, html("b", {}, `${line().big} ${line().counted_from}. `), `You committed to ${mark.toFixed(2)}: ${Math.abs(off).toFixed(2)} ${off > 0 ? "further along" : "nearer"}. ${words}`),
      html("div", { class: "sides" }, key("Again", start, "steps-again", true), key("Done", end, "steps-end")));
    element.querySelector("#steps-again").focus();
  }

  function draw() {
    for (const name of Object.keys(given)) if (at === 0) delete given[name];
    const step = steps[at];
    element.hidden = false;
    element.replaceChildren(
      html("p", { class: "step-number" }, `${at + 1} of ${steps.length}`),
      html("p", { class: "step-do" }, sentence(step.do)),
      ...(step.ask ? set(step) : []),
      html("div", { class: "sides" }, key(step.ask === "commit" ? "Commit" : "Next", next, "steps-next", true), key("Stop", end, "steps-end")));
    element.querySelector("#steps-next").focus({ preventScroll: true });
    pointer();
  }

  // A moved ball, another line or stroke: the steps are about the new one.
  function load() {
    if (at < 0) return;
    if (!line()?.solved || line().rails === "straight") end();
    else {
      steps = stepsOf(answer());
      if (at >= steps.length) at = steps.length - 1;
      if (at === 1) draw();
    }
  }

  return { start, load };
}
