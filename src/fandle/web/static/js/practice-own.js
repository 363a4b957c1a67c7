// A drill of one's own, made of the layout last looked at on the Table; Python solves its line and says if it will not do.

import { post, send } from "./ask.js";
import { html, say, sentence } from "./dom.js";
import { toast } from "./toast.js";

const find = (id) => document.getElementById(id);
const HERE = "fandle-here"; // the layout last looked at, in this tab

// onMade(entry): a drill was made; it may lie on another table than the page's.
export function ownDrills(urls, onMade) {
  const query = sessionStorage.getItem(HERE);
  const form = find("own-form");
  find("own-none").hidden = Boolean(query);
  form.hidden = !query;
  form.addEventListener("submit", async (event) => {
    event.preventDefault();
    const fault = find("own-fault");
    fault.hidden = true;
    const goal = { wanted_hits: Number(find("own-wanted").value), out_of: Number(find("own-of").value) };
    const note = { query, title: find("own-title").value, say: find("own-say").value, stop: find("own-stop").checked, ...goal };
    try {
      const made = await post(urls.own, JSON.stringify(note));
      toast(made.new ? `“${made.title}” is among your drills.` : `“${made.title}” was there before: its record goes on.`);
      form.reset();
      find("own").open = false;
      onMade(made);
    } catch (error) {
      say(fault, sentence(error.message));
      fault.hidden = false;
    }
  });
}

// The key that deletes one of them; what was tried stays in the record.
export function deleteKey(urls, entry, onGone) {
  const key = html("button", { class: "btn tool quiet", type: "button", "aria-label": `Delete ${entry.title}`, "data-delete": entry.key }, "Delete");
  key.addEventListener("click", async () => {
    try {
      await send("DELETE", `${urls.own}/${encodeURIComponent(entry.key)}`);
      onGone(entry);
      toast(`“${entry.title}” is deleted; its tries stay in the record.`);
    } catch (error) {
      toast(error.message);
    }
  });
  return key;
}

// The key that brings older drills of players' own into the list; room: where it stands from which record they begin.
export function olderKey(urls, room, onMore) {
  const key = html("button", { class: "btn tool", type: "button" }, "Older drills");
  key.addEventListener("click", async () => {
    try {
      const { entries, older } = await send("GET", `${urls.own}?before=${room.dataset.older}`);
      room.dataset.older = older ?? "";
      onMore(entries);
    } catch (error) {
      toast(error.message);
    }
  });
  return key;
}
