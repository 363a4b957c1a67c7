// Marks on the rails: the mark to shoot at with its dimension lines, and the numbers of the count.

import { svg } from "./dom.js";

// px on a large drawing, on a small one: of the six sizes of the page
const SIZES = { mark: [24, 19], apart: [16, 14], strong: [19, 16], scale: [16, 14] };

export const sized = (sheet, kind) => SIZES[kind][sheet.box.width / sheet.mmPerPixel() < 560 ? 1 : 0];

function line(sheet, rail, from, to, name) {
  const [x1, y1] = sheet.onRail(rail, ...from);
  const [x2, y2] = sheet.onRail(rail, ...to);
  return svg("path", { class: name, d: `M${x1} ${y1}L${x2} ${y2}` });
}

// An oblique tick, as a draughtsman ends a dimension line.
function tick(sheet, rail, at, out, px) {
  const [x, y] = sheet.onRail(rail, at, out);
  return svg("path", { class: "dim", d: `M${x - 4 * px} ${y + 4 * px}L${x + 4 * px} ${y - 4 * px}` });
}

const boxOf = (points, grown) => {
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  return [Math.min(...xs) - grown, Math.min(...ys) - grown, Math.max(...xs) + grown, Math.max(...ys) + grown];
};

// Places for a figure that belongs to a stretch of a dimension line: over its middle, then along it, then past its ends.
function along(sheet, rail, from, to, out, size) {
  const px = sheet.mmPerPixel();
  const unit = sheet.unit(rail);
  const step = (22 * px) / unit;
  const [low, high] = [Math.min(from, to), Math.max(from, to)];
  const ats = [(low + high) / 2];
  for (let k = 1; k < 12; k += 1) ats.push((low + high) / 2 + k * step, (low + high) / 2 - k * step);
  // beside a level line the figure stands on it; an upright one it interrupts
  const [, sign] = sheet.onRail(rail, 0, 1).map((value, axis) => value - sheet.onRail(rail, 0, 0)[axis]);
  const off = sheet.level(rail) ? (sign < 0 ? size * 0.62 : size * 0.7) * px : 0;
  return ats.filter((at) => at > -1 && at < (rail === "far" || rail === "near" ? 9 : 5)).map((at) => sheet.onRail(rail, at, out + off));
}

// The mark of the chosen line; `labels` writes its figures.
export function drawMark(sheet, group, labels, chosen, frame) {
  group.replaceChildren();
  labels.ask("mark", []);
  if (!chosen || !chosen.solved) return;
  const { rail, answer, drawing } = chosen;
  const px = sheet.mmPerPixel();
  const unit = sheet.unit(rail);
  const aim = answer.corrected[frame];
  const foot = frame === "sight" ? sheet.setback : 0;
  const window = [[drawing.mark.less, 0], [drawing.mark.more, 0], [drawing.mark.more, 45], [drawing.mark.less, 45]];
  const corners = window.map(([at, out]) => sheet.onRail(rail, at, out));
  group.append(svg("polygon", { class: "mark-window", points: corners.map((p) => p.join(",")).join(" ") }));
  // the eye's helps: a spot on the line just ahead of the ball, and where the shaft crosses the edge behind it
  const helps = [];
  for (const name of ["ahead", "back"]) {
    const [cx, cy] = sheet.view(...drawing[name]);
    helps.push(boxOf([[cx, cy]], 5 * px));
    group.append(svg("circle", { class: name, cx, cy, r: (name === "ahead" ? 3 : 4) * px }));
  }
  if (drawing.mark.pot) {
    const [low, high] = drawing.mark.pot;
    const inner = [[low, -26], [high, -26], [high, 45], [low, 45]].map(([at, out]) => sheet.onRail(rail, at, out).join(","));
    group.append(svg("polygon", { class: "pot-window", points: inner.join(" ") }));
  }
  if (aim === null) return;
  const natural = answer.natural[frame];
  const size = sized(sheet, "mark");
  const out = sheet.rail + (sheet.level(rail) ? 14 : 0.9 * size) * px;
  const point = [sheet.onRail(rail, aim, foot), sheet.onRail(rail, aim - (7 * px) / unit, foot + 13 * px), sheet.onRail(rail, aim + (7 * px) / unit, foot + 13 * px)];
  group.append(
    svg("polygon", { class: "mark-point", points: point.map((p) => p.join(",")).join(" ") }),
    line(sheet, rail, [0, sheet.rail + 4 * px], [0, out + 6 * px], "dim thin"),
    line(sheet, rail, [aim, foot + 4], [aim, out + 6 * px], "dim thin"),
    line(sheet, rail, [0, out], [aim, out], "dim hot"),
    tick(sheet, rail, 0, out, px),
    tick(sheet, rail, aim, out, px),
  );
  const beside = aim + (Math.sign(natural - aim || 1) * -30 * px) / unit;
  /** @type {any[]} */
  const asks = [{ text: chosen.big, size, weight: 700, name: "dim-text hot", rank: 0, must: true, data: { id: "mark-label" },
    at: [...along(sheet, rail, 0, aim, out, size), ...along(sheet, rail, beside, beside, out, size)] }];
  const apart = Math.abs(natural - aim);
  if ((apart * unit) / px > 8) {
    group.append(
      line(sheet, rail, [natural, 4], [natural, out + 6 * px], "dim thin"),
      line(sheet, rail, [aim, out], [natural, out], "dim"),
      tick(sheet, rail, natural, out, px),
    );
    const small = sized(sheet, "apart");
    asks.push({ text: apart.toFixed(2), size: small, weight: 600, name: "dim-text", rank: 5, at: along(sheet, rail, aim, natural, out, small).slice(0, 7) });
  }
  labels.ask("mark", asks, [], [...helps, boxOf(point, 0), ...(sheet.level(rail) ? [boxOf([sheet.onRail(rail, 0, out), sheet.onRail(rail, aim, out)], px)] : [])]);
}

// Places for a number of a rail: on its cap, beside the mark there, then further out.
function places(sheet, { rail, at }, first) {
  const px = sheet.mmPerPixel();
  const level = sheet.level(rail);
  const aside = ((level ? 20 : 15) * px) / sheet.unit(rail);
  const rows = [sheet.rail - 10 * px, sheet.rail + (level ? 12 : 16) * px, sheet.rail + (level ? 30 : 24) * px];
  const tries = [rows[first], rows[first + 1] ?? rows[first]].flatMap((out) => [0, 1, -1, 1.6, -1.6].map((k) => sheet.onRail(rail, at + k * aside, out)));
  return tries;
}

const RANK = { aim: 1, table: 1, cue: 1, zero: 2, scale: 8 };

// The numbers of a count, where they are counted.
export function drawCount(sheet, group, labels, count) {
  group.replaceChildren();
  labels.ask("count", []);
  if (!count || !count.applies) return;
  const px = sheet.mmPerPixel();
  const asks = [];
  for (const number of count.numbers) {
    const strong = number.role !== "scale";
    const outside = number.role === "cue";
    const from = outside ? 45 : sheet.rail - 22 * px;
    const to = outside ? sheet.rail + 4 * px : sheet.rail - 19 * px;
    if (number.rail !== count.rails[0] || strong) group.append(line(sheet, number.rail, [number.at, from], [number.at, to], `count-tick ${number.role}`));
    asks.push({ text: number.label, size: sized(sheet, strong ? "strong" : "scale"), weight: strong ? 700 : 500,
      name: `count-text ${number.role}`, rank: RANK[number.role], must: strong, at: places(sheet, number, outside ? 1 : 0) });
  }
  labels.ask("count", asks);
}

// Words that belong to the table itself, like "baulk".
export function drawWords(sheet, labels) {
  const words = JSON.parse(sheet.element.dataset.words ?? "[]");
  labels.ask("words", words.map(([text, x, y]) => ({ text, size: 14, weight: 500, name: "word", rank: 9, at: [sheet.view(x, y)] })));
}
