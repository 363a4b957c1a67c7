// The Log room: take an attempt out, and put it back.

import { send } from "./ask.js";
import { askNickname, takeIn } from "./names.js";
import { toast } from "./toast.js";

const room = document.getElementById("log");

// Times are kept in UTC and read in the reader's own zone.
const when = new Intl.DateTimeFormat(undefined, { day: "numeric", month: "short", year: "numeric", hour: "2-digit", minute: "2-digit" });
for (const time of room.querySelectorAll("time")) {
  const date = new Date(time.dateTime);
  if (!Number.isNaN(date.getTime())) time.textContent = when.format(date);
}

room.addEventListener("click", async (event) => {
  const row = event.target.closest(".delete")?.closest("tr");
  if (!row) return;
  const url = `${room.dataset.attempts}/${row.dataset.uid}`;
  try {
    await send("DELETE", url);
  } catch (fault) {
    toast(fault.message);
    return;
  }
  row.hidden = true;
  toast("The attempt is deleted.", async () => {
    try {
      await send("POST", `${url}/restore`);
      row.hidden = false;
    } catch (fault) {
      toast(fault.message);
    }
  });
});

askNickname(room, room.querySelectorAll(".exports a"));

document.getElementById("result")?.addEventListener("change", (event) => event.target.form.requestSubmit());

document.getElementById("import").addEventListener("change", async (event) => {
  const [file] = event.target.files;
  event.target.value = "";
  if (!file) return;
  toast("Reading the file…");
  try {
    const found = await takeIn(room.dataset.import, file, file.name.endsWith(".csv") ? "text/csv" : "application/json");
    if (!found) return;
    const { attempts, new: fresh } = found;
    if (fresh) location.reload();
    else toast(`Nothing new: all ${attempts} attempts are in the log already.`);
  } catch (fault) {
    toast(fault.message);
  }
});
