// Questions to the server. One is under way at a time; of those that wait, only the newest is asked.

export class Fault extends Error {
  // passing: the same question may well be answered later
  constructor(message, field, passing = false) {
    super(message);
    this.field = field;
    this.passing = passing;
  }
}

// How many questions are under way, for whoever watches the page (a test, a style).
let underWay = 0;

function count(step) {
  underWay += step;
  document.documentElement.dataset.asking = String(underWay);
}

async function request(method, url, body, type) {
  count(1);
  try {
    const headers = body === undefined ? {} : { "Content-Type": type };
    const reply = await fetch(url, { method, headers, body }).catch(() => {
      throw new Fault("the server does not answer: check that Fandle is running, then try again", "", true);
    });
    const data = await reply.json().catch(() => ({ error: `the server failed (${reply.status})`, field: "" }));
    if (!reply.ok) throw new Fault(data.error, data.field, reply.status >= 500);
    return data;
  } finally {
    count(-1);
  }
}

export const post = (url, body, type = "application/json") => request("POST", url, body, type);

export const send = (method, url, data) =>
  request(method, url, data === undefined ? undefined : JSON.stringify(data), "application/json");

export function asker(url, onAnswer, onFault) {
  let number = 0;
  let waiting = null;
  let busy = false;

  async function next() {
    busy = true;
    while (waiting) {
      const { question, serial } = waiting;
      waiting = null;
      try {
        const answer = await post(url, JSON.stringify(question));
        if (serial === number) onAnswer(answer);
      } catch (fault) {
        if (serial === number) onFault(fault);
      }
    }
    busy = false;
  }

  return (question) => {
    number += 1;
    waiting = { question, serial: number };
    if (!busy) next();
  };
}
