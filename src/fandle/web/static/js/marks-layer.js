// Marks on the rails: the mark to shoot at with its dimension lines, and the numbers of the count.

import { svg } from "./dom.js";

function clear(group) {
  group.replaceChildren();
}

function line(sheet, rail, from, to, name) {
  const [x1, y1] = sheet.onRail(rail, ...from);
  const [x2, y2] = sheet.onRail(rail, ...to);
  return svg("path", { class: name, d: `M${x1} ${y1}L${x2} ${y2}` });
}

function label(sheet, rail, at, out, text, name) {
  const [x, y] = sheet.onRail(rail, at, out);
  const turned = rail === "head" || rail === "foot";
  const attributes = { class: name, x, y };
  if (turned && name.startsWith("dim")) attributes.transform = `rotate(-90 ${x} ${y})`;
  return svg("text", attributes, text);
}

// An oblique tick, as a draughtsman ends a dimension line.
function tick(sheet, rail, at, out, px, name) {
  const [x, y] = sheet.onRail(rail, at, out);
  return svg("path", { class: name, d: `M${x - 4 * px} ${y + 4 * px}L${x + 4 * px} ${y - 4 * px}` });
}

export function drawMark(sheet, group, chosen, frame) {
  clear(group);
  if (!chosen || !chosen.solved) return;
  const { rail, answer, drawing } = chosen;
  const px = sheet.mmPerPixel();
  const unit = rail === "far" || rail === "near" ? sheet.dx : sheet.dy;
  const aim = answer.corrected[frame];
  const foot = frame === "sight" ? sheet.setback : 0;
  const out = sheet.rail + 15 * px;
  // text stands on the line; below and at the right of the table that is its far side
  const above = out + (rail === "near" || rail === "foot" ? 22 : 6) * px;
  const aboveSmall = out + (rail === "near" || rail === "foot" ? 16 : 6) * px;

  const a = sheet.onRail(rail, drawing.mark.less, 0);
  const b = sheet.onRail(rail, drawing.mark.more, 0);
  const c = sheet.onRail(rail, drawing.mark.more, 45);
  const d = sheet.onRail(rail, drawing.mark.less, 45);
  group.append(svg("polygon", { class: "mark-window", points: [a, b, c, d].map((p) => p.join(",")).join(" ") }));
  if (aim === null) return;
  const natural = answer.natural[frame];
  const tip = sheet.onRail(rail, aim, foot);
  const left = sheet.onRail(rail, aim - (7 * px) / unit, foot + 13 * px);
  const right = sheet.onRail(rail, aim + (7 * px) / unit, foot + 13 * px);
  group.append(svg("polygon", { class: "mark-point", points: [tip, left, right].map((p) => p.join(",")).join(" ") }));
  group.append(
    line(sheet, rail, [0, sheet.rail + 6 * px], [0, out + 6 * px], "dim thin"),
    line(sheet, rail, [aim, foot + 4], [aim, out + 6 * px], "dim thin"),
    line(sheet, rail, [0, out], [aim, out], "dim hot"),
    tick(sheet, rail, 0, out, px, "dim"),
    tick(sheet, rail, aim, out, px, "dim"),
  );
  const room = (aim * unit) / px;
  group.append(label(sheet, rail, room < 50 ? aim + (30 * px) / unit : aim / 2, above, chosen.big, "dim-text hot"));
  const apart = Math.abs(natural - aim);
  if ((apart * unit) / px > 8) {
    group.append(
      line(sheet, rail, [natural, 4], [natural, out + 6 * px], "dim thin"),
      line(sheet, rail, [aim, out], [natural, out], "dim"),
      tick(sheet, rail, natural, out, px, "dim"),
    );
    if (room >= 50) {
      const wide = (apart * unit) / px > 34;
      const beside = natural > aim ? natural + (20 * px) / unit : aim + (20 * px) / unit;
      group.append(label(sheet, rail, wide ? (aim + natural) / 2 : beside, aboveSmall, apart.toFixed(2), "dim-text"));
    }
  }
}

// How much of its rail a number takes, px: as wide as its text along a long rail, as high as a line along a short one.
const room = (rail, text) => (rail === "far" || rail === "near" ? 9 * text.length + 8 : 20);

// Numbers of one rail that would lie on one another: those of the scale give way, the others go one row out.
function rows(sheet, numbers, px) {
  const placed = [];
  const weight = { aim: 0, cue: 1, zero: 2, scale: 3 };
  for (const number of [...numbers].sort((a, b) => weight[a.role] - weight[b.role])) {
    const unit = number.rail === "far" || number.rail === "near" ? sheet.dx : sheet.dy;
    const at = (number.at * unit) / px;
    const hits = (row) => placed.some((other) => other.number.rail === number.rail && other.row === row &&
      Math.abs(other.px - at) < (room(number.rail, number.label) + room(other.number.rail, other.number.label)) / 2);
    let row = number.role === "cue" ? 1 : 0;
    if (number.role === "scale" && hits(row)) continue;
    while (hits(row)) row += 1;
    placed.push({ number, row, px: at });
  }
  return placed;
}

// `mark`: {rail, at} of the triangle of the mark, which on a narrow rail would lie under its number.
export function drawCount(sheet, group, count, mark = null) {
  clear(group);
  if (!count || !count.applies) return;
  const px = sheet.mmPerPixel();
  const aimRail = count.rails[0];
  for (const { number, row } of rows(sheet, count.numbers, px)) {
    const strong = number.role !== "scale";
    const onAim = number.rail === aimRail;
    const further = number.rail === "far" || number.rail === "near" ? 20 : 46;
    const far = row === 0 ? sheet.rail - 10 * px : sheet.rail + (14 + further * (row - 1)) * px;
    const unit = number.rail === "far" || number.rail === "near" ? sheet.dx : sheet.dy;
    const near = mark && mark.rail === number.rail && sheet.rail < 40 * px && row === 0 && (Math.abs(mark.at - number.at) * unit) / px < 16;
    const aside = near ? ((number.at >= mark.at ? 24 : -24) * px) / unit : 0;
    group.append(label(sheet, number.rail, number.at + aside, far, number.label, `count-text${strong ? " strong" : ""}`));
    const from = row === 0 ? sheet.rail - 22 * px : 45;
    const to = row === 0 ? sheet.rail - 19 * px : sheet.rail + 4 * px;
    if (!onAim || strong) group.append(line(sheet, number.rail, [number.at, from], [number.at, to], "count-tick"));
  }
}
