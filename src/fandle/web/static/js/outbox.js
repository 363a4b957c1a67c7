// Notes the server could not take yet: kept in the browser, sent again under the same name, so never twice.

import { send } from "./ask.js";

const NOTES = "fandle-outbox"; // of the note keys; other pages have boxes of their own

const read = (box) => JSON.parse(localStorage.getItem(box) ?? "[]");
const write = (box, notes) => localStorage.setItem(box, JSON.stringify(notes));

export function keepForLater(note, box = NOTES) {
  write(box, [...read(box).filter((kept) => kept.uid !== note.uid), note]);
}

// Try to send what waits; returns how many went out. What the server refuses for good is dropped with its reason.
export async function flush(url, onRefused, box = NOTES) {
  let sent = 0;
  for (const note of read(box)) {
    try {
      await send("POST", url, note);
      sent += 1;
    } catch (fault) {
      if (fault.passing) return sent;
      onRefused(fault);
    }
    write(box, read(box).filter((kept) => kept.uid !== note.uid));
  }
  return sent;
}
