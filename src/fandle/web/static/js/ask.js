// Questions to the server. One is under way at a time; of those that wait, only the newest is asked,
// and not before what the last answer changed is on the screen: a slow machine draws fewer answers, not fewer frames.

export class Fault extends Error {
  // passing: the same question may well be answered later
  constructor(message, field, passing = false, balls = [], code = "") {
    super(message);
    this.code = code;
    this.field = field;
    this.passing = passing;
    this.balls = balls;
  }
}

// How many questions (and what follows from them) are under way, for whoever watches the page (a test, a style).
let underWay = 0;

export function count(step) {
  underWay += step;
  document.documentElement.dataset.asking = String(underWay);
}

const MOST_TRIES = 5; // of a question that a busy server puts off
const SHORT = 60000; // bytes: browsers send no more from a page that is being left

const pause = (seconds) => new Promise((done) => setTimeout(done, seconds * 1000));

async function request(method, url, body, type) {
  count(1);
  try {
    const headers = body === undefined ? {} : { "Content-Type": type };
    const keepalive = method !== "POST" && (body?.length ?? 0) < SHORT; // a change that is on its way when the page is left
    for (let tries = 1; ; tries += 1) {
      const reply = await fetch(url, { method, headers, body, keepalive }).catch(() => {
        throw new Fault("the server does not answer: check that Fandle is running, then try again", "", true);
      });
      const wait = Number(reply.headers.get("Retry-After"));
      if (reply.status === 503 && wait > 0 && tries < MOST_TRIES) {
        await pause(wait);
        continue;
      }
      const data = await reply.json().catch(() => ({ error: `the server failed (${reply.status})`, field: "" }));
      if (!reply.ok) throw new Fault(data.error, data.field, reply.status >= 500, data.balls, data.code);
      return data;
    }
  } finally {
    count(-1);
  }
}

export const post = (url, body, type = "application/json") => request("POST", url, body, type);

export const send = (method, url, data) =>
  request(method, url, data === undefined ? undefined : JSON.stringify(data), "application/json");

// After the next two frames; a page that is not looked at draws none, so not for ever.
export const painted = () => Promise.race([
  new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))),
  new Promise((done) => setTimeout(done, 60)),
]);

export function asker(url, onAnswer, onFault) {
  let number = 0;
  let waiting = null;
  let busy = false;
  let pending = false;

  async function next() {
    busy = true;
    count(1);
    while (waiting) {
      const { question, serial } = waiting;
      waiting = null;
      try {
        const answer = await post(url, JSON.stringify(question));
        pending = serial !== number;
        if (!pending) onAnswer(answer);
      } catch (fault) {
        pending = serial !== number;
        if (!pending) onFault(fault);
      }
      if (waiting) await painted();
    }
    busy = false;
    count(-1);
  }

  const ask = (question) => {
    number += 1;
    waiting = { question, serial: number };
    pending = true;
    if (!busy) next();
  };
  ask.busy = () => pending; // is an answer still to come?
  return ask;
}
