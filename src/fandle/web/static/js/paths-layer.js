// The lines of the shot: the one to shoot, what follows, the perfect mirror, the cue's line. Path data come from Python.

import { put } from "./dom.js";

const find = (id) => document.getElementById(id);

export const setPath = (id, data) => put(find(id), { d: data ?? "" });

export function drawPaths(drawing) {
  setPath("shot", drawing?.shot);
  setPath("after", drawing?.after.join(""));
  setPath("natural", drawing?.natural);
  setPath("aim-line", drawing?.aim_line);
  const ghost = find("ghost");
  ghost.toggleAttribute("hidden", !drawing);
  if (drawing) put(ghost, { cx: drawing.ghost[0], cy: drawing.ghost[1] });
}
