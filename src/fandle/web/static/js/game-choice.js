// Which game it is, and where it stands: eight-ball's group, snooker's ball on, a free ball.

import { put } from "./dom.js";

const OPEN = { group: null, on: null, free_ball: false };

// A choice is written game|group|on|free; onChange hears the game and the state of the one chosen.
export function gameChoice(select, onChange) {
  const written = ({ game, state = OPEN }) => [game, state.group ?? "", state.on ?? "", state.free_ball ? "free" : ""].join("|");
  select.addEventListener("change", () => {
    const [game, group, on, free] = select.value.split("|");
    onChange({ game, state: { group: group || null, on: on || null, free_ball: free === "free" } });
  });
  return (layout) => {
    const value = written(layout);
    if (select.value !== value) select.value = value;
    put(select, { title: select.selectedOptions[0]?.textContent ?? "" });
  };
}
