// What happened on the real table: one tap keeps an attempt; more can be said, and it can be undone.

import { put, say, svg } from "./dom.js";
import { send } from "./ask.js";
import { noteRest } from "./note-rest.js";
import { flush, keepForLater } from "./outbox.js";
import { toast } from "./toast.js";
import { freshUid } from "./uid.js";

export function notePanel(element, sheet, [group, stopLayer], urls, question, onNoted, onEdit) {
  const find = (selector) => element.querySelector(selector);
  const more = find("#note-more");
  const crossed = find("#crossed");
  const comment = find("#comment");
  const keys = [...element.querySelectorAll("[data-result]")];
  const sides = [...element.querySelectorAll("[data-side]")];
  let miss = null; // the line of advice, once there was a miss
  let line = null; // the target's line, from the answer
  let uid = null; // the attempt being told about
  let edition = null; // and what was said of it, as it was last seen
  let noting = false; // its first tap is on its way: a second one is the same tap
  let waiting = new Map(); // what was said and is not sent yet, by kind: { uid, change, timer }

  function tally(figures) {
    say(find("#tally"), figures ? `You: ${figures.hits} of ${figures.attempts} here.` : "Say what happened.");
  }

  function told(reply) {
    const { attempt: noted, figures, off_text: landed } = reply;
    if (noted.uid !== uid) return; // said of an earlier attempt, and kept; the panel is about this one
    ({ edition } = reply);
    const said = landed.endsWith(noted.result) ? landed : [noted.potted ? keys[0].textContent.toLowerCase() : noted.result, landed].filter(Boolean).join(", ");
    find("#noted").textContent = `Noted: ${said}.`;
    for (const key of keys) put(key, { "aria-pressed": String(key.dataset.result === noted.result && (!key.dataset.potted || key.dataset.potted === String(noted.potted))) });
    rest.show(noted);
    for (const side of sides) side.setAttribute("aria-pressed", String(side.dataset.side === noted.side_hit));
    find("#crossed-out").textContent = landed || "not marked";
    tally(figures);
    advise(noted);
  }

  // After a miss a line of advice, fetched when it is first wanted.
  async function advise(noted) {
    if (!miss && !["short", "long"].includes(noted?.result)) return;
    miss ??= import("./miss.js").then(({ missLine }) => missLine(find("#miss"), urls, { question, onEdit }));
    (await miss).show(noted);
  }

  async function attempt(work) {
    try {
      told(await work());
      return true;
    } catch (fault) {
      toast(`Not noted: ${fault.message}`);
      return false;
    }
  }

  // One after the other: each says which state of the attempt it follows.
  let last = Promise.resolve(true);
  function amend(mine, change) {
    last = last.then(() => attempt(() => send("PATCH", `${urls.attempts}/${mine}`, mine === uid ? { ...change, was: edition } : change)));
    return last;
  }

  async function note({ result, potted }) {
    if (noting) return;
    const what = potted ? { result, potted: potted === "true" } : { result };
    if (uid) {
      await amend(uid, what);
      return;
    }
    const fresh = { uid: freshUid(), question: question(), ...what };
    noting = true;
    try {
      const reply = await send("POST", urls.attempts, fresh);
      uid = fresh.uid;
      told(reply);
    } catch (fault) {
      if (fault.passing) {
        keepForLater(fresh);
        toast(`Kept in this browser until the server takes it (${fault.message}).`);
      } else {
        toast(`Not noted: ${fault.message}`);
      }
      return;
    } finally {
      noting = false;
    }
    sendWaiting();
    onNoted(uid);
    more.hidden = false;
    comment.value = "";
    crossed.value = line ? line.target : 0;
    drawMark();
  }

  // What is said of an attempt is sent a moment later, and always to the attempt it was said of.
  function later(kind, change, pause) {
    if (!uid) return;
    clearTimeout(waiting.get(kind)?.timer);
    const mine = uid;
    waiting.set(kind, { uid: mine, change, timer: setTimeout(() => now(kind), pause) });
  }

  async function now(kind) {
    const said = waiting.get(kind);
    if (!said) return true;
    clearTimeout(said.timer);
    waiting.delete(kind);
    return amend(said.uid, said.change);
  }

  const rest = noteRest(more, sheet, stopLayer, later);
  const sendAll = () => Promise.all([...waiting.keys()].map(now));

  function close() {
    sendAll();
    uid = null;
    more.hidden = true;
    for (const key of keys) put(key, { "aria-pressed": "false" });
    if (group.firstChild) group.replaceChildren();
    rest.clear();
    advise(null);
  }

  // The mark on the drawing: where the ball crossed the target's line. Dragged, or moved by the slider.
  function drawMark() {
    if (group.firstChild) group.replaceChildren();
    if (!line || more.hidden) return;
    const share = Number(crossed.value) / line.whole;
    const x = line.from[0] + share * (line.to[0] - line.from[0]);
    const y = line.from[1] + share * (line.to[1] - line.from[1]);
    const r = 9 * sheet.mmPerPixel();
    group.append(
      svg("path", { class: "cross-line", d: `M${line.from[0]} ${line.from[1]}L${line.to[0]} ${line.to[1]}` }),
      svg("g", { class: "cross-mark", transform: `translate(${x} ${y})` },
        svg("circle", { class: "grip", r: 22 * sheet.mmPerPixel() }),
        svg("path", { d: `M${-r} ${-r}L${r} ${r}M${-r} ${r}L${r} ${-r}` })));
    const mark = group.querySelector(".cross-mark");
    mark.addEventListener("pointerdown", (event) => {
      event.preventDefault();
      group.setPointerCapture(event.pointerId);
    });
  }

  group.addEventListener("pointermove", (event) => {
    if (!group.hasPointerCapture(event.pointerId)) return;
    const [px, py] = sheet.point(event);
    const [dx, dy] = [line.to[0] - line.from[0], line.to[1] - line.from[1]];
    const share = ((px - line.from[0]) * dx + (py - line.from[1]) * dy) / (dx * dx + dy * dy);
    crossed.value = Math.min(Math.max(share, 0), 1) * line.whole;
    drawMark();
  });
  const sayCrossing = (pause) => later("at", { at: Number(crossed.value) }, pause);
  group.addEventListener("pointerup", () => sayCrossing(0));
  crossed.addEventListener("input", () => {
    crossed.setAttribute("aria-valuetext", `${crossed.value} along the line`);
    drawMark();
    sayCrossing(300);
  });
  for (const key of keys) key.addEventListener("click", () => note(key.dataset));
  for (const side of sides) side.addEventListener("click", () => later("side", { side_hit: side.dataset.side }, 0));
  comment.addEventListener("input", () => later("comment", { comment: comment.value }, 400)); // no word is lost by leaving
  more.addEventListener("submit", (event) => {
    event.preventDefault();
    close();
    toast("Kept. Same set-up, next attempt.");
    keys[0].focus();
  });

  // Take a note back, and bring it again: by the key here, or by undo and redo.
  async function takeBack(gone) {
    waiting = new Map([...waiting].filter(([, said]) => said.uid !== gone));
    await send("DELETE", `${urls.attempts}/${gone}`);
    if (uid === gone) close();
    tally(null);
  }
  const bringBack = (gone) => send("POST", `${urls.attempts}/${gone}/restore`);
  find("#unnote").addEventListener("click", async () => {
    const gone = uid;
    try {
      await takeBack(gone);
    } catch (fault) {
      toast(fault.message);
      return;
    }
    toast("The note is taken back.", () => bringBack(gone).catch((fault) => toast(fault.message)));
  });

  async function sendWaiting() {
    const sent = await flush(urls.attempts, (fault) => toast(`A kept note was refused: ${fault.message}`));
    if (sent) toast(sent === 1 ? "A note that was kept in this browser is saved now." : `${sent} notes that were kept in this browser are saved now.`);
  }
  window.addEventListener("online", sendWaiting);
  window.addEventListener("pagehide", sendAll);
  sendWaiting();

  // The keys say what can come of this shot: of a bank a pot, of a straight one which side it passed.
  function label(results) {
    keys.forEach((key, index) => {
      const { id: result, label: word, potted } = results[index] ?? { id: "", label: "", potted: null };
      key.hidden = !result;
      key.dataset.result = result;
      if (potted === null || potted === undefined) delete key.dataset.potted;
      else key.dataset.potted = String(potted);
      say(key, word);
    });
  }

  function load(chosen, moved) {
    const solved = Boolean(chosen && chosen.solved);
    line = solved ? chosen.drawing.line : null;
    if (solved) {
      label(chosen.results);
      rest.load(chosen);
    }
    for (const key of keys) key.disabled = !solved;
    find("#crossing").hidden = !line;
    put(crossed, { max: line ? line.whole : 8 });
    if (moved) {
      close();
      tally(null);
      if (solved) import("./own-record.js").then((own) => own.show(find("#tally"), urls.here, question, () => !uid));
    }
    drawMark();
  }

  return { load, focus: () => keys[0].focus(), takeBack, bringBack };
}
