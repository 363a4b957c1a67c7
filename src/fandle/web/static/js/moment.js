// The moment of contact, drawn large: where the balls stand, the rail, how full, the spin, and where each ball goes.

import { html, svg } from "./dom.js";

const HEAD = 0.42; // of a ball's radius: an arrow's head

function arrow([x1, y1], [x2, y2], r, name) {
  const [dx, dy] = [x2 - x1, y2 - y1];
  const long = Math.hypot(dx, dy) || 1;
  const [ux, uy] = [dx / long, dy / long];
  const [bx, by] = [x2 - ux * HEAD * r, y2 - uy * HEAD * r];
  const wing = 0.24 * r;
  return svg("g", { class: name },
    svg("path", { class: "arrow-line", d: `M${x1} ${y1}L${bx} ${by}` }),
    svg("path", { class: "arrow-head", d: `M${x2} ${y2}L${bx - uy * wing} ${by + ux * wing}L${bx + uy * wing} ${by - ux * wing}Z` }));
}

// A bent arrow round the cue ball: the way it spins as seen from above; right side turns it anticlockwise.
function spin([x, y], r, way) {
  const turn = 0.72 * r;
  const [from, to] = way > 0 ? [0.4, -2.2] : [Math.PI - 0.4, Math.PI + 2.2];
  const at = (angle) => [x + turn * Math.cos(angle), y + turn * Math.sin(angle)];
  const [[x1, y1], [x2, y2]] = [at(from), at(to)];
  const sweep = way > 0 ? 0 : 1;
  const ahead = way > 0 ? to - 0.5 : to + 0.5;
  const [hx, hy] = at(ahead);
  return svg("g", { class: "spin" }, svg("path", { d: `M${x1} ${y1}A${turn} ${turn} 0 0 ${sweep} ${x2} ${y2}` }), arrow([x2, y2], [hx, hy], 0.8 * r, "spin-head"));
}

export function drawMoment(element, moment, title = "The moment of contact") {
  element.replaceChildren();
  element.hidden = !moment;
  if (!moment) return;
  const { view, bed: [length, width], radius: r, cue, ball, at_rail: atRail } = moment;
  const disc = (place, name) => svg("circle", { class: name, cx: place[0], cy: place[1], r });
  const words = moment.says.join(", ");
  const picture = svg("svg", { class: "moment", viewBox: view.join(" "), role: "img", "aria-label": `${title}: ${words}` },
    svg("rect", { class: "moment-cushion", x: view[0], y: view[1], width: view[2], height: view[3] }),
    svg("rect", { class: "moment-bed", x: 0, y: 0, width: length, height: width }),
    atRail ? disc(atRail, "moment-was") : "",
    arrow(moment.comes, cue, r, "comes"),
    disc(ball, "moment-ball"), disc(cue, "moment-cue"),
    svg("path", { class: "moment-centres", d: `M${cue.join(" ")}L${ball.join(" ")}` }),
    moment.driven ? arrow(ball, moment.driven, r, "driven") : "",
    moment.goes ? arrow(cue, moment.goes, r, "goes") : "",
    moment.spin ? spin(cue, r, moment.spin) : "",
    svg("text", { class: "moment-name", x: ball[0], y: ball[1], "font-size": 0.8 * r }, moment.ball_id.replace(/\D*(\d+)$/, "$1").slice(0, 5)));
  element.append(html("figure", { class: "moment-figure" }, picture, html("figcaption", {}, ...moment.says.map((part, k) => html(k ? "span" : "b", {}, part)))));
}
