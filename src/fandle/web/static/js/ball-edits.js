// Balls put on, moved and taken off: a new layout, handed on as a change.

import { post } from "./ask.js";

// state: how it stands now; change(next, kind); say: what is wrong; onAdded: the ball that was put there.
export function ballEdits(url, { state, change, say, onAdded }) {
  function move(moved) {
    const places = new Map(moved.map(([id, x, y]) => [id, { id, x, y }]));
    const balls = state().layout.balls.map((ball) => places.get(ball.id) ?? ball);
    change({ layout: { ...state().layout, balls } }, `move ${moved.map(([id]) => id)}`);
  }

  function remove(id) {
    if (id === "cue") return;
    const { layout } = state();
    const balls = layout.balls.filter((ball) => ball.id !== id);
    const next = balls.find((ball) => ball.id !== "cue");
    const target = layout.target === id ? (next ? next.id : null) : layout.target;
    change({ layout: { ...layout, balls, target } }, `remove ${id}`);
  }

  async function add(id) {
    try {
      const grown = await post(`${url}?ball=${encodeURIComponent(id)}`, JSON.stringify(state().layout));
      const added = grown.balls.at(-1).id;
      onAdded(added);
      change({ layout: { ...grown, target: grown.target ?? added } }, "add");
    } catch (fault) {
      say(fault.message);
    }
  }

  return { move, remove, add };
}
