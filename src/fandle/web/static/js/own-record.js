// Before the stroke: this very shot's own record, once the balls lie still.

import { post } from "./ask.js";
import { say } from "./dom.js";

const STILL = 600; // ms after the last change
let resting = 0;

export function show(element, url, question, free) {
  clearTimeout(resting);
  resting = setTimeout(async () => {
    const found = await post(url, JSON.stringify(question())).catch(() => null);
    if (found?.attempts && free()) say(element, `You: ${found.hits} of ${found.attempts} here.`);
  }, STILL);
}
