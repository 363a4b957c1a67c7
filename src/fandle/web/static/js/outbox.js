// Notes the server could not take yet: kept in the browser, sent again under the same name, so never twice.

import { send } from "./ask.js";

const KEY = "fandle-outbox";

const read = () => JSON.parse(localStorage.getItem(KEY) ?? "[]");
const write = (notes) => localStorage.setItem(KEY, JSON.stringify(notes));

export function keepForLater(note) {
  write([...read().filter((kept) => kept.uid !== note.uid), note]);
}

// Try to send what waits; returns how many went out. What the server refuses for good is dropped with its reason.
export async function flush(urls, onRefused) {
  let sent = 0;
  for (const note of read()) {
    try {
      await send("POST", urls.attempts, note);
      sent += 1;
    } catch (fault) {
      if (fault.passing) return sent;
      onRefused(fault);
    }
    write(read().filter((kept) => kept.uid !== note.uid));
  }
  return sent;
}
