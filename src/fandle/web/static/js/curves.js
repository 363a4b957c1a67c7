// Landings as curves: across, where the cue ball lay or the number counted; upwards long, downwards short.

import { svg } from "./dom.js";

const WIDE = 460;
const HIGH = 210;
const LEFT = 44;
const RIGHT = 92; // room for the curves' names
const TOP = 20;
const BOTTOM = 40;
const STEPS = [0.1, 0.25, 0.5, 1, 2];

// Names at the ends of their curves, moved apart where they would lie on one another.
function spread(labels) {
  labels.sort((a, b) => a.y - b.y);
  for (let k = 1; k < labels.length; k += 1) labels[k].y = Math.max(labels[k].y, labels[k - 1].y + 15);
  const over = (labels.at(-1)?.y ?? 0) - (HIGH - BOTTOM);
  if (over > 0) for (const label of labels) label.y -= over;
  return labels;
}

export function drawCurves(element, curves, axis) {
  const dots = curves.flatMap((curve) => curve.dots);
  if (dots.length === 0) {
    element.replaceChildren("The system counts nowhere along this row.");
    return;
  }
  const most = Math.max(0.3, ...dots.map((dot) => Math.abs(dot[1]))) * 1.08;
  const low = Math.min(...dots.map((dot) => dot[0]));
  const high = Math.max(...dots.map((dot) => dot[0]), low + 0.1);
  const x = (value) => LEFT + ((WIDE - LEFT - RIGHT) * (value - low)) / (high - low);
  const y = (value) => TOP + ((HIGH - TOP - BOTTOM) * (most - value)) / (2 * most);
  const step = STEPS.find((size) => most / size < 3) ?? 2;
  const parts = [];
  for (let k = -Math.floor(most / step); k <= most / step; k += 1) {
    const at = y(k * step);
    parts.push(svg("path", { class: k === 0 ? "axis nought" : "axis", d: `M${LEFT} ${at}H${WIDE - RIGHT}` }));
    parts.push(svg("text", { class: "tick", x: LEFT - 6, y: at, "text-anchor": "end" }, k === 0 ? "on" : String(Math.abs(k * step))));
  }
  parts.push(svg("text", { class: "way", x: 4, y: 8 }, "long"), svg("text", { class: "way", x: 4, y: HIGH - BOTTOM + 15 }, "short"));
  const unit = high - low > 12 ? 10 : high - low > 2.5 ? 1 : 0.5;
  for (let at = Math.ceil(low / unit) * unit; at <= high + 1e-9; at += unit) {
    parts.push(svg("path", { class: "axis-tick", d: `M${x(at)} ${HIGH - BOTTOM}v5` }), svg("text", { class: "tick", x: x(at), y: HIGH - BOTTOM + 15, "text-anchor": "middle" }, String(at)));
  }
  parts.push(svg("text", { class: "axis-name", x: (LEFT + WIDE - RIGHT) / 2, y: HIGH - 6, "text-anchor": "middle" }, axis));
  const labels = [];
  curves.forEach((curve, k) => {
    if (curve.dots.length === 0) return;
    const row = [...curve.dots].sort((a, b) => a[0] - b[0]);
    parts.push(svg("path", { class: `curve curve-${k}`, d: "M" + row.map(([a, b]) => `${x(a).toFixed(1)} ${y(b).toFixed(1)}`).join("L") }));
    for (const [a, b, hit] of row) parts.push(svg("circle", { class: `curve-dot curve-${k}${hit ? " hit" : ""}`, cx: x(a).toFixed(1), cy: y(b).toFixed(1), r: 2.6 }));
    labels.push({ y: y(row.at(-1)[1]), k, text: curve.name });
  });
  for (const label of spread(labels)) parts.push(svg("text", { class: `curve-name curve-${label.k}`, x: WIDE - RIGHT + 8, y: label.y }, label.text));
  const said = curves.filter((curve) => curve.worst).map((curve) => `${curve.name} ${curve.worst}`).join(", ");
  const text = document.createElement("p");
  text.className = "worst";
  text.textContent = `Worst of the row, diamonds: ${said}.`;
  element.replaceChildren(svg("svg", { viewBox: `0 0 ${WIDE} ${HIGH}`, role: "img", "aria-label": `Landing, diamonds long or short, against ${axis}. ${text.textContent}` }, ...parts), text);
}
