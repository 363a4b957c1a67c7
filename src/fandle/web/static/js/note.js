// What happened on the real table: one tap keeps an attempt; more can be said, and it can be undone.

import { put, say, svg } from "./dom.js";
import { send } from "./ask.js";
import { flush, keepForLater } from "./outbox.js";
import { toast } from "./toast.js";

export function notePanel(element, sheet, group, urls, question) {
  const find = (selector) => element.querySelector(selector);
  const more = find("#note-more");
  const crossed = find("#crossed");
  const comment = find("#comment");
  const keys = [...element.querySelectorAll("[data-result]")];
  const sides = [...element.querySelectorAll("[data-side]")];
  let line = null; // the target's line, from the answer
  let uid = null; // the attempt being told about
  let pending = 0;

  function tally(figures) {
    say(find("#tally"), figures ? `${figures.hits} of ${figures.attempts} hit from here.` : "Say what happened.");
  }

  function told(reply) {
    const { attempt, figures, off_text: landed } = reply;
    const said = landed.endsWith(attempt.result) ? landed : [attempt.result, landed].filter(Boolean).join(", ");
    find("#noted").textContent = `Noted: ${said}.`;
    for (const key of keys) key.setAttribute("aria-pressed", String(key.dataset.result === attempt.result));
    for (const side of sides) side.setAttribute("aria-pressed", String(side.dataset.side === attempt.side_hit));
    find("#crossed-out").textContent = landed || "not marked";
    tally(figures);
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

  async function note(result) {
    if (uid) {
      await attempt(() => send("PATCH", `${urls.attempts}/${uid}`, { result }));
      return;
    }
    const note = { uid: crypto.randomUUID(), question: question(), result };
    try {
      told(await send("POST", urls.attempts, note));
    } catch (fault) {
      if (fault.passing) {
        keepForLater(note);
        toast(`Not saved yet, but kept in this browser: it is sent when the server takes it (${fault.message}).`);
      } else {
        toast(`Not noted: ${fault.message}`);
      }
      return;
    }
    sendWaiting();
    uid = note.uid;
    more.hidden = false;
    comment.value = "";
    crossed.value = line ? line.target : 0;
    drawMark();
  }

  function close() {
    uid = null;
    more.hidden = true;
    for (const key of keys) put(key, { "aria-pressed": "false" });
    if (group.firstChild) group.replaceChildren();
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
  group.addEventListener("pointerup", () => sendCrossing());

  function sendCrossing() {
    clearTimeout(pending);
    if (uid) attempt(() => send("PATCH", `${urls.attempts}/${uid}`, { at: Number(crossed.value) }));
  }

  crossed.addEventListener("input", () => {
    drawMark();
    clearTimeout(pending);
    pending = setTimeout(sendCrossing, 300);
  });
  for (const key of keys) key.addEventListener("click", () => note(key.dataset.result));
  for (const side of sides) side.addEventListener("click", () => attempt(() => send("PATCH", `${urls.attempts}/${uid}`, { side_hit: side.dataset.side })));
  let typing = 0;
  comment.addEventListener("input", () => { // kept while it is typed, so that leaving the page loses no word
    clearTimeout(typing);
    const mine = uid;
    typing = setTimeout(() => attempt(() => send("PATCH", `${urls.attempts}/${mine}`, { comment: comment.value })), 400);
  });
  more.addEventListener("submit", async (event) => {
    event.preventDefault();
    clearTimeout(typing);
    if (comment.value) await attempt(() => send("PATCH", `${urls.attempts}/${uid}`, { comment: comment.value }));
    close();
    toast("Kept. Same set-up, next attempt.");
    keys[0].focus();
  });
  find("#unnote").addEventListener("click", async () => {
    const gone = uid;
    try {
      await send("DELETE", `${urls.attempts}/${gone}`);
    } catch (fault) {
      toast(fault.message);
      return;
    }
    close();
    tally(null);
    toast("The note is taken back.", () => send("POST", `${urls.attempts}/${gone}/restore`).catch((fault) => toast(fault.message)));
  });

  async function sendWaiting() {
    const sent = await flush(urls, (fault) => toast(`A kept note was refused: ${fault.message}`));
    if (sent) toast(sent === 1 ? "A note that was kept in this browser is saved now." : `${sent} notes that were kept in this browser are saved now.`);
  }
  window.addEventListener("online", sendWaiting);
  sendWaiting();

  function load(chosen, moved) {
    line = chosen && chosen.solved ? chosen.drawing.line : null;
    for (const key of keys) key.disabled = !line;
    if (chosen?.rails === "straight") find("#tally").textContent = "Straight shots are not kept.";
    put(crossed, { max: line ? line.whole : 8 });
    if (moved) {
      close();
      tally(null);
    }
    drawMark();
  }

  return { load, press: (index) => keys[index]?.click() };
}
