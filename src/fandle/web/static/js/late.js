// Parts of the Table room that are fetched when they are first wanted.

import { toast } from "./toast.js";

// Step by step. make: what a player goes through, from the part once it is there.
export function lateSteps(button, make) {
  let guided = null;
  button.addEventListener("click", async () => {
    const { bySteps } = await import("./by-steps.js");
    guided ??= make(bySteps);
    if (!guided.start()) toast("Choose a line that is not straight first: a straight shot needs no steps.");
  });
  return { load: () => guided?.load() };
}

// The mirror view of an answer, in its tab.
export async function showMirror(element, { chosen, layout }) {
  const { mirrorView } = await import("./mirror-view.js");
  const mirror = chosen?.solved ? chosen.drawing.mirror : null;
  element.replaceChildren(mirror ? mirrorView(mirror, { target: layout.target, width: element.clientWidth }) : "A straight shot has no mirror image.");
}
