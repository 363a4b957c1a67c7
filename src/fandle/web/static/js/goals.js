// Hit, pot or safe: the best lines of each side by side, with what each risks, asked for by a key and stopped by it.

import { html, say } from "./dom.js";
import { answered } from "./ndjson.js";

// onLine: a row of it was chosen, with its goal.
export function goalsPanel(element, url, { question, onLine }) {
  const key = element.querySelector("#goals-start");
  const bar = element.querySelector("i");
  const out = element.querySelector("#goals-out");
  const words = element.querySelector("#goals-say");
  let work = null;

  key.addEventListener("click", () => (work ? stop() : start()));

  function stop() {
    work?.abort();
    work = null;
    say(key, "Compare the three");
    element.classList.remove("working");
  }

  async function start() {
    const mine = new AbortController();
    work = mine;
    say(key, "Stop");
    say(words, "");
    element.classList.add("working");
    bar.style.width = "0";
    try {
      for await (const found of answered(url, question(), mine.signal)) {
        if (mine !== work) return;
        bar.style.width = `${Math.round(100 * found.progress)}%`;
        out.replaceChildren(...found.goals.map(column));
        say(words, found.say);
      }
    } catch (fault) {
      if (mine.signal.aborted) return;
      say(words, fault.message);
    }
    if (mine === work) stop();
  }

  // Something changed: what stands there is about another layout.
  function drop() {
    if (work) stop();
    out.replaceChildren();
    say(words, "");
  }

  function column({ goal, name, rows }) {
    return html("section", {}, html("h3", {}, name), html("ol", {}, ...rows.map(({ row, risk }) => {
      const button = html("button", { type: "button" }, html("b", {}, row.percent), html("span", { class: "name" }, [row.name, row.mark].filter(Boolean).join(" ")), html("span", { class: "risk" }, risk));
      button.addEventListener("click", () => onLine(row, goal));
      return html("li", {}, button);
    })), rows.length ? "" : html("p", {}, "no line"));
  }

  return { drop };
}
