// How far the engine is, asked for until it is ready.

const EVERY_MS = 1000;

export async function look(bar, ready) {
  const reply = await fetch("/api/health").catch(() => null); // a server that is busy or gone: the next look tells
  const health = reply?.ok ? await reply.json() : null;
  if (health?.status === "ok") return ready();
  if (health) bar.value = Math.round(100 * health.done);
  return setTimeout(() => look(bar, ready), EVERY_MS);
}
