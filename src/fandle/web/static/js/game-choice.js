// Which game it is, and where it stands: eight-ball's group, snooker's ball on, a free ball.

import { html, put, sentence } from "./dom.js";

const OPEN = { group: null, on: null, free_ball: false };

// A choice is written game|group|on|free; onChange hears the game and the state of the one chosen.
// notice: told where the ball chosen is not on, with the game in which it would be.
export function gameChoice(select, notice, onChange) {
  const written = ({ game, state = OPEN }) => [game, state.group ?? "", state.on ?? "", state.free_ball ? "free" : ""].join("|");
  select.addEventListener("change", () => {
    const [game, group, on, free] = select.value.split("|");
    onChange({ game, state: { group: group || null, on: on || null, free_ball: free === "free" } });
  });
  return ({ layout, headline, on_in: other }) => {
    const value = written(layout);
    if (select.value !== value) select.value = value;
    notice.hidden = !other;
    if (other) {
      const button = html("button", { type: "button", class: "link" }, other[1]);
      button.addEventListener("click", () => {
        select.value = other[0];
        select.dispatchEvent(new Event("change"));
      });
      notice.replaceChildren(`${sentence(headline.way)} It would be on in: `, button);
    }
    put(select, { title: select.selectedOptions[0]?.textContent ?? "" });
  };
}
