// A name for an attempt that no other has. Without a secure context (plain HTTP from another device) browsers keep
// randomUUID back, but not the random bytes it is made of.

export function freshUid() {
  if (crypto.randomUUID) return crypto.randomUUID();
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  return [...bytes].map((byte) => byte.toString(16).padStart(2, "0")).join("");
}
