// How steady is the player? A word, three questions, figures typed, or the log; what it comes to stands below.

import { send } from "./ask.js";

const number = (element, name) => Number(element.querySelector(`[name=${name}]`).value);

export function steady(element, url, onChange) {
  const out = element.querySelector("#steady-out");
  const typed = element.querySelector("#steady-figures");

  function show({ player, say }) {
    out.textContent = say;
    for (const field of typed.querySelectorAll("input")) {
      const value = field.name in player ? player[field.name] : player.mark_diamonds[field.name];
      field.value = String(Number(value.toFixed(4)));
    }
  }

  async function put(data) {
    try {
      show(await send("PUT", url, data));
      onChange();
    } catch (fault) {
      out.textContent = fault.message;
    }
  }

  for (const button of element.querySelectorAll("[data-by]")) button.addEventListener("click", () => put({ by: button.dataset.by }));
  element.querySelector("#steady-questions").addEventListener("submit", (event) => {
    event.preventDefault();
    const [straight_ins, lag_off, mark_off] = ["straight_ins", "lag_off", "mark_off"].map((name) => number(event.target, name));
    put({ questions: { straight_ins, lag_off, mark_off } });
  });
  typed.addEventListener("submit", (event) => {
    event.preventDefault();
    const marks = ["diamond", "half", "quarter", "between"].map((name) => [name, number(typed, name)]);
    const [direction_deg, speed_part, tip_mm] = ["direction_deg", "speed_part", "tip_mm"].map((name) => number(typed, name));
    put({ figures: { direction_deg, speed_part, tip_mm, mark_diamonds: Object.fromEntries(marks) } });
  });
  for (const field of element.querySelectorAll("[data-habit]")) field.addEventListener("change", async () => {
    try {
      await send("PUT", element.dataset.preferences, { [field.name]: field.type === "checkbox" ? field.checked : field.value });
      onChange();
    } catch (fault) {
      out.textContent = fault.message;
    }
  });
  send("GET", url).then(show, (fault) => { out.textContent = fault.message; });
}
