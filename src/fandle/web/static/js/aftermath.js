// What comes after the hit, fetched once the room stands: zones on the cloth, the next ball, changes, goals side by side.

import { afterwards } from "./afterwards.js";
import { drawMoment } from "./moment.js";
import { raisedCue } from "./raised-cue.js";
import { goalsPanel } from "./goals.js";
import { zoneLayer } from "./zones.js";

for (const name of ["after", "moment"]) {
  const style = document.createElement("link");
  style.rel = "stylesheet";
  style.href = new URL(`../css/${name}.css`, import.meta.url).href;
  document.head.append(style);
}

const find = (id) => document.getElementById(id);

// told: state, onChange, question, isShown, isBall, menu; onLine: a row of the goals with its goal.
export function aftermath(sheet, urls, { state, onChange, question, isShown, isBall, menu, onLine }) {
  const zones = zoneLayer(sheet, find("layer-zones"), menu, { state, onChange: (part) => onChange(part, "zone"), isBall });
  const place = (name, row) => {
    const [x, y] = row?.ends.find(({ id }) => id === "cue")?.at ?? [sheet.length / 2, sheet.width / 2];
    zones.add(name, x / sheet.dx, (sheet.width - y) / sheet.dy);
  };
  const after = afterwards({ choice: find("after-choice"), said: find("after-said"), vary: find("after-vary"), sheet, ahead: find("ahead"), looked: find("layer-looked") },
    urls.position, { question, state, onChange, isShown, onPlace: place });
  const goals = goalsPanel(find("goals"), urls.strategy, { question, onLine });
  for (const key of document.querySelectorAll("[data-late]")) key.disabled = false;
  const raised = raisedCue(find("raised"), (elevation) => onChange({ stroke: { elevation } }, "elevation"));
  const draw = (answer) => {
    after.draw(answer);
    raised.show(answer.stroke);
    drawMoment(find("close-up"), answer.chosen?.moment);
  };
  return { zones, after: { ...after, draw }, goals };
}
