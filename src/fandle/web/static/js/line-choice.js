// Which line of the list is drawn: the one that was chosen, else the best of the first rows.

import { drawEnds } from "./ends-layer.js";
import { drawGain, sameStroke, drawLines } from "./lines-view.js";

// state, answer: how they stand now; take: changes the state without a step to undo; ask: for the line over these rails;
// choose: as a step of its own; look: draws the path of the line looked at; onDrawn: the line drawn with its ends.
export function lineChoice({ list: element, gain, withheld, sheet, ends }, { state, answer, take, ask, choose, look, onAll, onDrawn }) {
  let strokeToo = false; // is the stroke to be the best one, too? Once, after another wish
  let list;
  keep(answer().lines ?? [], answer());

  // What is chosen with a line: its ball, way and stroke, and where it pots or how full it hits.
  const choiceOf = (line) => ({
    ...(line.target !== state().layout.target && { layout: { ...state().layout, target: line.target } }),
    rails: line.rails, kind: line.kind ?? "kick", pocket: line.pocket ?? null, hit: line.hit ?? 0, ...(line.stroke && { stroke: line.stroke }),
  });

  // How far a line's stroke is from the one given: what tells a push or a curve from the plain straight shot.
  const strokeOff = (line) => (line.stroke ? Object.keys(line.stroke).reduce((sum, part) => sum + Math.abs(line.stroke[part] - (answer().stroke[part] ?? 0)), 0) : 0);

  function fits(line) {
    const { chosen, kind, pocket, layout, goal, hit } = answer();
    const into = chosen?.solved ? pocket : (line.pocket ?? null);
    const byHit = line.key.startsWith("point") || (goal === "pot" && line.hit); // lines that only the thickness tells apart
    if (byHit && Math.abs(line.hit - hit) > 0.02) return false;
    return line.rails === chosen?.rails && (line.kind ?? "kick") === kind && (line.pocket ?? null) === into && line.target === layout.target;
  }

  const chosenOf = (lines) => lines.filter(fits).sort((a, b) => strokeOff(a) - strokeOff(b))[0];

  function show() {
    const drawn = chosenOf([...list.rows, ...list.shut]);
    drawLines(element, list, { isChosen: (line) => line === drawn, onRow: (line) => choose(choiceOf(line)), onLook: look, onAll });
    const line = withheld() ? null : chosenOf(list.rows);
    const whole = line && sameStroke(line, answer().stroke) ? line : null;
    drawEnds(sheet, ends, whole);
    onDrawn(whole);
    drawGain(gain, line, answer(), () => choose(choiceOf(line)));
  }

  // The rows that came with an answer: it is about the best of them.
  function accept(given) {
    if (given.lines) keep(given.lines, given);
  }

  function keep(rows, { shut, advice, more }) {
    list = { rows, shut: shut ?? list?.shut ?? [], advice: advice ?? "", more: more ?? 0 };
  }

  // First rows for this stroke, then all of them: where no line is chosen, the best of the first ones is drawn.
  function follow(found, whole) {
    keep(found.rows, found);
    const first = found.rows.every((line) => line.own) || (whole && (strokeToo || !answer().chosen?.solved));
    const best = first && answer().target_on ? found.rows[0] : null;
    const other = best && (best !== chosenOf(found.rows) || (whole && strokeToo && !sameStroke(best, answer().stroke)));
    if (whole) strokeToo = false;
    if (state().rails === null && other) {
      take({ ...choiceOf(best), rails: null, stroke: { ...state().stroke, ...best.stroke } });
      ask(best.rails);
    }
    show();
  }

  // Something else is wanted, or the stroke was set by hand.
  const renew = (on) => { strokeToo = on; };

  return { show, accept, follow, renew, of: choiceOf };
}
