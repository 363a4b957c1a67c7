// What the layout is called, and whether it is still as it was kept. The address carries the name.

import { say } from "./dom.js";

export function layoutTitle(element) {
  let name = new URLSearchParams(location.search).get("name") ?? element.dataset.name ?? "";

  function show(dirty) {
    say(element, `${name || "New layout"}${name && dirty ? " (changed)" : ""}`);
  }

  show(false);
  return {
    name: () => name,
    query: () => (name ? [`name=${encodeURIComponent(name)}`] : []),
    changed: () => show(true),
    set(next) {
      name = next;
      show(false);
    },
  };
}
