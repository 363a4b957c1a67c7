// The address bar always holds a link to the layout. Browsers ignore more than some twenty changes a second
// of it, so while a ball is dragged it follows a few times a second.

import { count } from "./ask.js";

const PAUSE = 250; // ms

let last = -PAUSE;
let waiting = null;

function write() {
  history.replaceState(null, "", waiting);
  waiting = null;
  last = performance.now();
}

export function showAddress(address) {
  const pending = waiting !== null;
  waiting = address;
  if (pending) return;
  const left = last + PAUSE - performance.now();
  if (left <= 0) {
    write();
    return;
  }
  count(1);
  setTimeout(() => {
    write();
    count(-1);
  }, left);
}
