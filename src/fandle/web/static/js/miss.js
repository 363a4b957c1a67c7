// After a miss: one line of advice under the note keys, with the stroke that makes up for it one tap away.

import { post, send } from "./ask.js";
import { html } from "./dom.js";

// question: the shot that was noted; onEdit: takes a stroke offered, or asks again.
export function missLine(element, urls, { question, onEdit }) {
  let number = 0; // of the newest question: late replies are dropped

  async function show(noted) {
    number += 1;
    const mine = number;
    if (!noted || !["short", "long"].includes(noted.result) || noted.kind !== "kick") {
      element.hidden = true;
      return;
    }
    const stopped = noted.stopped_x === null || noted.stopped_y === null ? null : [noted.stopped_x, noted.stopped_y];
    try {
      const found = await post(urls.diagnose, JSON.stringify({ question: question(), result: noted.result, off: noted.off, touched: noted.touched ?? [], stopped }));
      if (mine !== number) return;
      element.replaceChildren(found.say);
      if (found.stroke) {
        const take = html("button", { type: "button", class: "link" }, "Take that stroke");
        take.addEventListener("click", () => onEdit({ stroke: found.stroke }));
        element.append(" ", take);
      }
      if (found.carry) element.append(" ", carry(found.carry));
      element.hidden = false;
    } catch {
      if (mine === number) element.hidden = true; // no advice is no fault: the note stands
    }
  }

  // As a test shot it sets the table's own numbers, until another one does.
  function carry({ table, shift, say }) {
    const key = html("button", { type: "button", class: "link" }, "Carry it as a test shot");
    key.addEventListener("click", async () => {
      try {
        await send("PUT", urls.testShot, { table, shift });
        key.replaceWith(say);
        onEdit({}); // nothing but the table's own numbers, which the answer has
      } catch (fault) {
        key.replaceWith(fault.message);
      }
    });
    return key;
  }

  return { show };
}
