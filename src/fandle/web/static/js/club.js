// The Club room: a table's numbers and what they do, cues, files. Python computes every figure and curve.

import { Fault, asker, post, send } from "./ask.js";
import { html } from "./dom.js";
import { shortcuts } from "./keys.js";
import { squirtTest } from "./squirt-test.js";
import { toast } from "./toast.js";

const find = (id) => document.getElementById(id);
const club = find("club");
const urls = JSON.parse(club.dataset.urls);
let name = club.dataset.table;
const { record } = club.dataset; // the id of the table that is open
let { edition } = club.dataset; // and the state of it that was seen
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

// Edits save themselves a moment after the last one, and can be taken back one by one.
const SETTLED = 500; // ms
const past = []; // whole tables as they were, the newest last
let timer = 0;
let words = {}; // cloth and rubber chosen in words since the last saving
let dirty = false; // something is not saved yet
let refused = false; // and the server did not take it
let saving = Promise.resolve(true);

function status(text) {
  const element = find("saved-state");
  if (element) element.textContent = text;
}

function later() {
  if (!own) return;
  dirty = true;
  refused = false;
  status("Saving…");
  clearTimeout(timer);
  timer = setTimeout(save, SETTLED);
}

function save() {
  clearTimeout(timer);
  if (dirty) saving = saving.then(() => keep({ base: name, name: find("name").value, values: values(), ...words }, true));
  return saving;
}

async function keep(body, remember) {
  dirty = false;
  words = {};
  try {
    const kept = await send("PUT", `${urls.tables}/${record}`, { ...body, was: edition });
    if (remember && kept.before) past.push(kept.before);
    renamed(kept);
    draw(kept);
    for (const input of inputs) input.defaultValue = input.value;
    status("All changes are saved.");
    find("undo-table").disabled = past.length === 0;
    refused = false;
    return true;
  } catch (fault) {
    dirty = refused = true;
    find("undo-table").disabled = false;
    status("Not saved: mend it, or undo.");
    say(fault.message);
    return false;
  }
}

function renamed(kept) {
  document.querySelector(`#tables [data-table="${CSS.escape(name)}"]`)?.setAttribute("data-table", kept.name);
  const item = document.querySelector(`#tables [data-table="${CSS.escape(kept.name)}"]`);
  if (item) {
    item.href = here(kept.name);
    item.querySelector("b").textContent = kept.name;
  }
  name = kept.name;
  ({ edition } = kept);
  find("title").textContent = name;
  if (document.activeElement !== find("name")) find("name").value = name;
  find("play-on").href = kept.play;
  find("save-table").href = `${find("save-table").href.split("?")[0]}?name=${encodeURIComponent(name)}`;
  find("save-table").download = `${name}.table.json`;
  history.replaceState(null, "", here(name));
}

async function undo() {
  clearTimeout(timer);
  if (dirty) { // the newest thing is what was not saved: the form goes back to what was
    dirty = refused = false;
    words = {};
    form.reset();
    find("name").value = name;
    look();
    status("All changes are saved.");
    find("undo-table").disabled = past.length === 0;
    return;
  }
  const before = past.pop();
  if (before) await keep({ base: name, whole: before }, false);
}

form.addEventListener("input", (event) => {
  if (event.target.id === "cloth" || event.target.id === "rubber") words[event.target.id] = event.target.value;
  if (event.target.id !== "name") look(words);
  later();
});
form.addEventListener("submit", (event) => {
  event.preventDefault();
  save();
});
find("undo-table")?.addEventListener("click", undo);
shortcuts({ undo: () => own && undo() });
for (const link of [find("play-on"), find("save-table")]) {
  link.addEventListener("click", async (event) => {
    if (!dirty) return;
    event.preventDefault();
    if (await save()) link.click();
  });
}
window.addEventListener("beforeunload", (event) => {
  if (refused) event.preventDefault(); // what was refused would be lost
  else save();
});

// A free name for a copy: "My …", "My … 2".
async function duplicate() {
  await save();
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
    const gone = await send("DELETE", `${urls.tables}/${record}`);
    document.querySelector(`#tables [data-table="${CSS.escape(name)}"]`)?.parentElement.remove();
    form.hidden = true;
    dirty = false;
    clearTimeout(timer);
    toast(`${gone.name} is off the list; its log is kept.`, async () => {
      try {
        const back = await post(urls.back, JSON.stringify({ id: gone.id }));
        location.assign(here(back.name));
      } catch (fault) {
        toast(fault.message);
      }
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

squirtTest(find("squirt-test"), { url: urls.cue_test, table: () => name, onFound: (ratio) => { find("cue-ratio").value = ratio.toFixed(1); } });
for (const button of document.querySelectorAll("[data-mine]")) {
  button.addEventListener("click", () => send("PUT", urls.preferences, { cue: button.dataset.mine }).then(() => location.reload(), (fault) => toast(fault.message)));
}

let changing = null; // the cue being changed: its key's data
for (const button of document.querySelectorAll("[data-cue]")) {
  button.addEventListener("click", () => {
    changing = button.dataset;
    [find("cue-name").value, find("cue-ratio").value, find("cue-tip").value] = [button.dataset.cue, button.dataset.ratio, button.dataset.tip];
    find("cue-off").hidden = false;
    find("cue-details").open = true;
    find("cue-name").focus();
  });
}
find("cue-form").addEventListener("submit", async (event) => {
  event.preventDefault();
  const cue = { name: find("cue-name").value, end_ratio: Number(find("cue-ratio").value), tip_mm: Number(find("cue-tip").value) };
  try {
    if (changing) await send("PUT", `${urls.cues}/${changing.record}`, { ...cue, was: changing.edition });
    else await post(urls.cues, JSON.stringify(cue));
    location.reload();
  } catch (fault) {
    toast(fault.message);
  }
});
find("cue-off").addEventListener("click", async () => {
  try {
    const gone = await send("DELETE", `${urls.cues}/${changing.record}`);
    document.querySelector(`button[data-record="${changing.record}"]`)?.closest("tr").remove();
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
