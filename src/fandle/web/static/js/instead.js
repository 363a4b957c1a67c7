// Hold the mark, change the stroke: the question turned round. Python solves it.

import { post } from "./ask.js";

export function instead(element, url, { question, onStroke }) {
  const mark = element.querySelector("#held");
  const out = element.querySelector("#held-out");
  let touched = false;

  mark.addEventListener("input", () => { touched = true; });
  for (const button of element.querySelectorAll("[data-change]")) {
    button.addEventListener("click", async () => {
      const at = Number(mark.value.replace(",", ".").replace("−", "-"));
      if (!mark.value.trim() || Number.isNaN(at)) {
        out.textContent = "Write the mark to hold as a number, like 2.5.";
        return;
      }
      try {
        const reply = await post(url, JSON.stringify({ question: question(), mark: at, change: button.dataset.change }));
        out.textContent = reply.solved ? `${button.textContent} changed; the mark stays.` : `${reply.reason[0].toUpperCase()}${reply.reason.slice(1)}.`;
        if (reply.solved) onStroke(reply.stroke, button.dataset.change);
      } catch (fault) {
        out.textContent = `${fault.message[0].toUpperCase()}${fault.message.slice(1)}.`;
      }
    });
  }

  // Until a mark is written, the nearest half is offered: halves are easier to aim at.
  function load(chosen, frame, moved) {
    const open = chosen?.solved && chosen.drawing.line;
    element.hidden = !open;
    if (moved) {
      touched = false;
      out.textContent = "";
    }
    if (!open || touched) return;
    const half = String(Math.round(chosen.answer.corrected[frame] * 2) / 2);
    if (mark.value !== half) mark.value = half;
  }
  return { load };
}
