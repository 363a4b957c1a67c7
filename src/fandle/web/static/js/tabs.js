// Tabs below the drawing: one panel at a time, moved through by arrow keys; the last one chosen is remembered.

import { put } from "./dom.js";

const KEY = "fandle-tab";

export function tabs(element, onShow) {
  const keys = [...element.querySelectorAll("[role=tab]")];
  const panel = (key) => document.getElementById(key.getAttribute("aria-controls"));
  let shown = keys[0];

  function mark(key) {
    shown = key;
    for (const each of keys) {
      put(each, { "aria-selected": each === key, tabindex: each === key ? 0 : -1 });
      panel(each).hidden = each !== key;
    }
  }

  function show(key, focus = false) {
    mark(key);
    sessionStorage.setItem(KEY, key.id);
    if (focus) key.focus();
    onShow(key.id);
  }

  for (const key of keys) key.addEventListener("click", () => show(key));
  element.addEventListener("keydown", (event) => {
    const step = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    if (!step) return;
    event.preventDefault();
    const open = keys.filter((key) => !key.disabled);
    show(open[(open.indexOf(shown) + step + open.length) % open.length], true);
  });
  const kept = keys.find((key) => key.id === sessionStorage.getItem(KEY));
  if (kept) mark(kept);
  return { show: (id) => show(keys.find((key) => key.id === id)), shown: () => shown.id };
}
