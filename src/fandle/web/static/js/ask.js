// Questions to the server. One is under way at a time; of those that wait, only the newest is asked.

export class Fault extends Error {
  constructor(message, field) {
    super(message);
    this.field = field;
  }
}

export async function post(url, body, type = "application/json") {
  let reply;
  try {
    reply = await fetch(url, { method: "POST", headers: { "Content-Type": type }, body });
  } catch {
    throw new Fault("The server does not answer: check that Fandle is running, then move a ball to ask again.", "");
  }
  const data = await reply.json().catch(() => ({ error: `The server failed (${reply.status}).`, field: "" }));
  if (!reply.ok) throw new Fault(data.error, data.field);
  return data;
}

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
