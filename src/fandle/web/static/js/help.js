// Words explained on demand, the first visit, the sheet of shortcuts, the view from two metres.

import { send } from "./ask.js";
import { toast } from "./toast.js";

const SEEN = "fandle-first-visit";

export function help(words, urls, onTip) {
  const explain = document.getElementById("explain");
  document.addEventListener("click", (event) => {
    const term = event.target.closest("[data-term]");
    if (!term || !(term.dataset.term in words)) return;
    event.preventDefault(); // a word inside a label does not move its slider
    explain.querySelector("p").textContent = words[term.dataset.term];
    explain.hidden = false;
  });
  explain.querySelector("button").addEventListener("click", () => { explain.hidden = true; });

  const first = document.getElementById("first-visit");
  first.hidden = localStorage.getItem(SEEN) !== null;
  document.getElementById("first-done").addEventListener("click", () => {
    localStorage.setItem(SEEN, "1");
    first.hidden = true;
  });

  document.getElementById("help-open").addEventListener("click", async () => {
    const { steady } = await import("./steady.js");
    steady(document.getElementById("steady"), urls.player, onTip);
  }, { once: true });

  document.getElementById("tip-mm").addEventListener("change", async (event) => {
    try {
      await send("PUT", urls.preferences, { tip_mm: Number(event.target.value) });
      onTip();
    } catch (fault) {
      toast(fault.message);
    }
  });
}

export function farView(answer) {
  const far = document.getElementById("far");
  const { chosen, stroke } = answer;
  const put = (name, text) => { far.querySelector(name).textContent = text; };
  if (!chosen || !chosen.solved) {
    toast("There is no line to show: choose an open one in the list.");
    return;
  }
  put(".far-lead", chosen.lead);
  put(".far-mark", chosen.big);
  put(".far-frame", [chosen.remembered, chosen.own && `${chosen.own.system}: ${chosen.own.say}`, chosen.counted_from, chosen.big_words].filter(Boolean).join(" · "));
  put(".far-stroke", [stroke.speed_text, stroke.side_text === "none" ? "plain" : [stroke.side_text, chosen.running].filter(Boolean).join(", "),
    stroke.height === 0 ? "" : stroke.height_text].filter(Boolean).join(" · "));
  put(".far-helps", chosen.helps.map(({ name, text }) => `${name} ${text}`).join(" · "));
  far.showModal();
}
