// What changed and what did not: a small plot a drill, week by week with its ranges, and the same in words.

import { html, sentence, svg } from "./dom.js";

const WIDTH = 380;
const HIGH = 70;

function plot(row) {
  const x = (k) => 20 + ((WIDTH - 40) * (k + 0.5)) / Math.max(row.weeks.length, 1);
  const y = (share) => 6 + (HIGH - 12) * (1 - share);
  const words = row.weeks.map(([week, tries, hits]) => `week of ${week}: ${hits} of ${tries}`).join("; ");
  const parts = [0, 0.5, 1].map((share) => svg("path", { class: "axis", d: `M0 ${y(share)}H${WIDTH}` }));
  row.weeks.forEach(([, , , share, low, high], k) => {
    parts.push(svg("path", { class: "range", d: `M${x(k)} ${y(low)}V${y(high)}` }), svg("circle", { class: "dot", cx: x(k), cy: y(share), r: 4 }));
  });
  return svg("svg", { class: "weeks", viewBox: `0 0 ${WIDTH} ${HIGH}`, role: "img", "aria-label": words }, ...parts);
}

const PERIODS = [7, 14, 30, 90]; // days

const GROUPS = { kind: "kind of line", speed: "speed", table: "table", system: "system" };
const GOALS = [0.1, 0.15, 0.2, 0.3, 0.5]; // diamonds
const KEPT = "fandle-progress"; // which period, groups and goal were looked at last

function choice(label, options, chosen, onChange) {
  const select = html("select", { class: "form-select", "aria-label": label }, ...options.map(([value, text]) => html("option", { value, selected: String(value) === String(chosen) }, text)));
  select.addEventListener("change", () => onChange(select.value));
  return select;
}

export async function drawProgress(element, url, fault) {
  const { days, by, goal } = { days: 14, by: "kind", goal: 0.2, ...JSON.parse(localStorage.getItem(KEPT) ?? "{}") };
  const again = (changed) => {
    localStorage.setItem(KEPT, JSON.stringify({ days, by, goal, ...changed }));
    drawProgress(element, url, fault);
  };
  const reply = await fetch(`${url}?days=${days}&by=${by}&goal=${goal}`).catch(() => null);
  if (!reply?.ok) {
    fault("the progress cannot be read: check that Fandle is running, then try again");
    return;
  }
  const { rows, bias } = await reply.json();
  const choices = [
    choice("Period", PERIODS.map((each) => [each, `the last ${each} days`]), days, (value) => again({ days: Number(value) })),
    choice("The log by", Object.entries(GROUPS).map(([key, text]) => [key, `the log by ${text}`]), by, (value) => again({ by: value })),
    choice("Goal", GOALS.map((each) => [each, `goal: within ${each} diamond`]), goal, (value) => again({ goal: Number(value) })),
  ];
  if (!rows.length) {
    element.replaceChildren(html("p", { class: "soft" }, "Nothing played yet: a drill or a question, and it is told here what changes."));
    return;
  }
  element.replaceChildren(html("p", { class: "keys" }, ...choices, html("span", { class: "soft" }, "against all before; shares by week with their 95 % ranges")), bias && html("p", {}, bias),
    ...rows.map((row) => html("div", { class: "row" }, html("b", {}, row.title), ` ${row.hits} of ${row.attempts}`, plot(row), html("span", { class: `verdict-${row.verdict.replaceAll(" ", "-")}` }, sentence(row.say)))));
}

// Every drill anybody tried, a column a player; nothing while there is only one.
export async function drawSideBySide(element, url) {
  const reply = await fetch(url).catch(() => null);
  const { players, rows, more } = reply?.ok ? await reply.json() : { players: [], rows: [], more: 0 };
  if (players.length < 2) {
    element.replaceChildren();
    return;
  }
  element.replaceChildren(html("table", {}, html("caption", {}, more ? `Side by side: those who tried most, and ${more} more` : "Side by side"),
    html("thead", {}, html("tr", {}, html("th", { scope: "col" }, "drill"), ...players.map((name) => html("th", { scope: "col" }, name)))),
    html("tbody", {}, ...rows.map((row) => html("tr", {}, html("th", { scope: "row" }, row.title), ...row.made.map((made) => html("td", {}, made || "–")))))));
}
