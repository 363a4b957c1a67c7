// The Table room begins: what the server wrote is on the screen before its thirty scripts are asked for.

import { painted } from "./ask.js";

// A key pressed before its script is there is not lost: it is pressed again when it is.
const early = new Set();
const keep = (event) => {
  const key = event.target.closest?.("#room button");
  if (key) early.add(key);
};
document.addEventListener("click", keep, true);

await painted();
await import("./main.js");
document.removeEventListener("click", keep, true);
for (const key of early) key.click();
