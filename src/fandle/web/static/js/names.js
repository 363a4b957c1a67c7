// Asking for a name in a dialog: what a player is to be called here, or in files that are handed on.

import { post, send } from "./ask.js";
import { html } from "./dom.js";

// The name that was given, "" where it is left as it is, null where all is given up.
function askName({ title, text, use, leave = "" }) {
  const field = html("input", { class: "form-control", type: "text", maxlength: "60", autocomplete: "off", "aria-label": title, form: "name-form" });
  const button = (word, value, strong = "") => html("button", { class: `btn tool${strong}`, type: "submit", value }, word);
  const form = html("form", { method: "dialog", id: "name-form" }, button(use, "use", " strong"), " ", leave && button(leave, "leave"), " ", button("Cancel", "cancel"));
  const dialog = html("dialog", { class: "sheet-dialog", "aria-label": title }, html("h2", {}, title), html("p", {}, text), field, form);
  document.body.append(dialog);
  dialog.showModal();
  field.focus();
  return new Promise((done) => {
    dialog.addEventListener("close", () => {
      dialog.remove();
      const name = field.value.trim();
      done({ use: name || null, leave: "" }[dialog.returnValue] ?? null);
    });
  });
}

// A file that is taken in. Where its player has no name, or mine, they are another person here: which one is asked.
export async function takeIn(url, file, type) {
  try {
    return await post(url, file, type);
  } catch (fault) {
    if (fault.code !== "whose") throw fault;
    const name = await askName({ title: "Whose file is this?", text: "Its player is not you: give the name they are to have here.", use: "Take it in" });
    return name ? takeIn(`${url}?player=${encodeURIComponent(name)}`, file, type) : null;
  }
}

// Once, before the first file of mine is handed on: a nickname that others know. links: those to the files.
export function askNickname(room, links) {
  if (room.dataset.me === undefined) return;
  for (const link of links) {
    link.addEventListener("click", async (event) => {
      if (room.dataset.me === undefined) return;
      event.preventDefault();
      const text = "In files that you hand on you are called “Me”, as everybody is. A nickname tells others whose they are.";
      const name = await askName({ title: "What do others call you?", text, use: "Use this nickname", leave: "Leave it at “Me”" });
      if (name === null) return;
      await send("PUT", room.dataset.me, { nickname: name || null });
      delete room.dataset.me;
      link.click();
    });
  }
}
