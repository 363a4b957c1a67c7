// The table's own numbers for a system: what to shoot from each start, in bold, and small what the sum says.

import { html } from "./dom.js";

export function drawOwnMarks(section, own) {
  section.hidden = !own;
  if (!own) return;
  const head = html("tr", {}, html("th", { scope: "col" }, `${own.start} ↓ ${own.goal} →`), ...own.goals.map((goal) => html("th", { scope: "col" }, goal)));
  const rows = own.starts.map((start, i) => html("tr", {}, html("th", { scope: "row" }, start),
    ...own.cells[i].map((cell, j) => html("td", {}, html("b", {}, cell), cell === "–" ? "" : html("small", {}, own.sums[i][j])))));
  section.querySelector("table").replaceChildren(html("thead", {}, head), html("tbody", {}, ...rows));
}
