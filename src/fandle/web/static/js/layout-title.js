// What the layout is called, and whether it is still as it was kept. The address carries the name; the record's id and
// the edition of it that was seen stand on the page.

import { say } from "./dom.js";

export function layoutTitle(element) {
  let kept = element.dataset;
  let name = new URLSearchParams(location.search).get("name") ?? element.dataset.name ?? "";

  function show(dirty) {
    say(element, `${name || "New layout"}${name && dirty ? " (changed)" : ""}`);
  }

  show(false);
  return {
    name: () => name,
    query: () => (name ? [`name=${encodeURIComponent(name)}`] : []),
    kept: () => kept,
    changed: () => show(true),
    set(saved) {
      name = saved?.name ?? "";
      kept = saved ?? {};
      show(false);
    },
  };
}
