// What is written on a ball: a pool number, a snooker colour's letters, nothing on the cue ball.

const LETTERS = { yellow: "Y", green: "G", brown: "Br", blue: "Bl", pink: "P", black: "Bk", white: "W", red: "R" };

export function onBall(id) {
  if (id === "cue") return "";
  if (id in LETTERS) return LETTERS[id];
  return id.startsWith("red") ? `r${id.slice(3)}` : id;
}

// How the ball is tinted, beside its letters: "" for pool.
export const tint = (id) => (id in LETTERS ? id : id.startsWith("red") ? "red" : "");
