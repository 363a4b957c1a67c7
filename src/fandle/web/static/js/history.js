// Undo and redo: every state the page has asked about, and every attempt noted, kept for this tab. Steps of one
// drag are one entry. Undo takes back the newest thing, whichever it is.

import { toast } from "./toast.js";

const KEY = "fandle-history";
const MOST = 200;
const TOGETHER = 700; // ms: changes of one kind closer than this are one step

export function makeHistory(buttons, restore, { undoNote, redoNote }) {
  let past = [];
  let future = [];
  let lastKind = "";
  let lastTime = 0;
  try {
    const kept = JSON.parse(sessionStorage.getItem(KEY) ?? "null");
    if (kept && kept.at === location.search) ({ past, future } = kept);
  } catch {
    sessionStorage.removeItem(KEY);
  }

  function show() {
    buttons.undo.disabled = past.length === 0;
    buttons.redo.disabled = future.length === 0;
  }

  // Written down once the page is left: no drag waits for it.
  window.addEventListener("pagehide", () => {
    sessionStorage.setItem(KEY, JSON.stringify({ past, future, at: location.search }));
  });

  // Call before a change, with the state as it still is.
  function remember(state, kind) {
    const now = performance.now();
    if (kind !== lastKind || now - lastTime > TOGETHER) {
      past.push(structuredClone(state));
      past = past.slice(-MOST);
    }
    [lastKind, lastTime] = [kind, now];
    future = [];
    show();
  }

  // An attempt was noted: the newest thing that undo takes back.
  function note(uid) {
    past.push({ noted: uid });
    lastKind = "";
    future = [];
    show();
  }

  async function step(from, to, state, again) {
    if (from.length === 0) return;
    lastKind = "";
    const entry = from.pop();
    if (entry.noted) {
      to.push(entry);
      await again(entry.noted).catch((fault) => toast(fault.message));
    } else {
      to.push(structuredClone(state));
      restore(entry);
    }
    show();
  }

  show();
  return {
    remember,
    note,
    undo: (state) => step(past, future, state, undoNote),
    redo: (state) => step(future, past, state, redoNote),
  };
}
