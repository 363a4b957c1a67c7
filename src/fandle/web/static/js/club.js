// The Club room: a table's numbers and what they do, cues, files. Python computes every figure and curve.

import { Fault, asker, post, send } from "./ask.js";
import { html } from "./dom.js";
import { toast } from "./toast.js";

const find = (id) => document.getElementById(id);
const club = find("club");
const urls = JSON.parse(club.dataset.urls);
const name = club.dataset.table;
const own = club.dataset.own === "yes";
const form = find("table-form");
const inputs = [...form.querySelectorAll("input[name]")];
const here = (table) => `${urls.room}?table=${encodeURIComponent(table)}`;

function say(message) {
  const fault = find("table-fault");
  fault.textContent = message && `${message[0].toUpperCase()}${message.slice(1)}.`;
  fault.hidden = !message;
}

const values = () => Object.fromEntries(inputs.filter((input) => input.value !== "").map((input) => [input.name, Number(input.value)]));

function draw(reply) {
  say("");
  for (const input of inputs) {
    const value = reply.values[input.name];
    if (document.activeElement !== input && value !== undefined && Number(input.value) !== value) input.value = value;
    input.classList.toggle("changed", Number(input.value) !== Number(input.defaultValue));
  }
  for (const word of ["cloth", "rubber"]) find(word).value = reply[word];
  find("shot-here").setAttribute("d", reply.shot);
  find("shot-standard").setAttribute("d", reply.standard);
  for (const curve of ["here", "rigid", "standard"]) find(`plot-${curve}`).setAttribute("d", reply.plot[curve]);
  find("told").replaceChildren(...reply.told.map((line) => html("p", {}, line)));
}

function complain(fault) {
  say(fault.message);
}

// On a phone the list comes first: who has chosen a table wants to see it.
if (location.search && window.matchMedia("(max-width: 991px)").matches) document.querySelector(".bench").scrollIntoView();

const ask = asker(urls.preview, draw, complain);
const look = (words = {}) => ask({ base: name, values: values(), ...words });

form.addEventListener("input", (event) => {
  if (event.target.id === "name") return;
  look(event.target.id === "cloth" || event.target.id === "rubber" ? { [event.target.id]: event.target.value } : {});
});
form.addEventListener("reset", () => setTimeout(look));
form.addEventListener("submit", async (event) => {
  event.preventDefault();
  try {
    const kept = await send("PUT", `${urls.tables}/${encodeURIComponent(name)}`, { base: name, name: find("name").value, values: values() });
    location.assign(here(kept.name));
  } catch (fault) {
    say(fault.message);
  }
});

// A free name for a copy: "My …", "My … 2".
async function duplicate() {
  const base = own ? `${find("name").value} copy` : `My ${find("title").textContent}`;
  for (let n = 1; n < 100; n += 1) {
    try {
      const kept = await post(urls.tables, JSON.stringify({ base: name, name: n === 1 ? base : `${base} ${n}`, values: own ? values() : {} }));
      location.assign(here(kept.name));
      return;
    } catch (fault) {
      if (!(fault instanceof Fault) || fault.field !== "name") {
        say(fault.message);
        return;
      }
    }
  }
}
find("duplicate").addEventListener("click", duplicate);

find("remove")?.addEventListener("click", async () => {
  try {
    const gone = await send("DELETE", `${urls.tables}/${encodeURIComponent(name)}`);
    document.querySelector(`#tables [data-table="${CSS.escape(name)}"]`)?.parentElement.remove();
    form.hidden = true;
    toast(`${gone.name} is off the list.`, async () => {
      const back = await post(urls.read, JSON.stringify(gone.table), "text/plain");
      location.assign(here(back.name));
    });
  } catch (fault) {
    say(fault.message);
  }
});

find("open-table").addEventListener("change", async (event) => {
  const [file] = event.target.files;
  event.target.value = "";
  if (!file) return;
  try {
    const read = await post(urls.read, await file.text(), "text/plain");
    location.assign(here(read.name));
  } catch (fault) {
    say(`${file.name}: ${fault.message}`);
  }
});

let changing = null; // the cue being changed
for (const button of document.querySelectorAll("[data-cue]")) {
  button.addEventListener("click", () => {
    changing = button.dataset.cue;
    [find("cue-name").value, find("cue-ratio").value, find("cue-tip").value] = [changing, button.dataset.ratio, button.dataset.tip];
    find("cue-off").hidden = false;
    find("cue-details").open = true;
    find("cue-name").focus();
  });
}
find("cue-form").addEventListener("submit", async (event) => {
  event.preventDefault();
  const cue = { name: find("cue-name").value, end_ratio: Number(find("cue-ratio").value), tip_mm: Number(find("cue-tip").value) };
  try {
    if (changing) await send("PUT", `${urls.cues}/${encodeURIComponent(changing)}`, cue);
    else await post(urls.cues, JSON.stringify(cue));
    location.reload();
  } catch (fault) {
    toast(fault.message);
  }
});
find("cue-off").addEventListener("click", async () => {
  try {
    const gone = await send("DELETE", `${urls.cues}/${encodeURIComponent(changing)}`);
    document.querySelector(`[data-cue="${CSS.escape(changing)}"]`)?.closest("tr").remove();
    find("cue-details").open = false;
    changing = null;
    toast(`${gone.name} is off the list.`, async () => {
      await post(urls.cues, JSON.stringify(gone));
      location.reload();
    });
  } catch (fault) {
    toast(fault.message);
  }
});
