// Layouts kept: open, save, save again, rename, delete, link, files. Fetched when first asked for: see open-menu.js.

import { post, send } from "./ask.js";
import { html } from "./dom.js";
import { toast } from "./toast.js";

const PAUSE = 250; // ms after the last letter of what is looked for

export function keptLayouts(urls, { state, onLayout, onSaved, kept, say }) {
  const find = (id) => document.getElementById(id);
  const [naming, opening] = [find("naming"), find("opening")];
  const [name, note, search, list, older] = ["layout-name", "layout-note", "find-layout", "saved", "more-layouts"].map(find);
  const where = (id) => `${urls.layouts}/${id}`;
  const isCurrent = (id) => String(kept().id) === String(id);

  function row(saved) {
    const about = [html("b", {}, saved.name), html("span", {}, saved.href ? saved.note : "This record cannot be read.")];
    const again = html("button", { class: "btn tool", type: "button", "data-rename": true, "aria-label": `Rename ${saved.name}` }, "Rename");
    const off = html("button", { class: "btn tool", type: "button", "data-delete": true, "aria-label": `Delete ${saved.name}` }, "Delete");
    return html("li", { "data-id": saved.id, "data-name": saved.name, "data-edition": saved.edition, "data-demo": saved.demo }, saved.href ? html("a", { href: saved.href }, ...about) : html("span", {}, ...about), again, off);
  }

  // The list from its beginning, or the next screenful of it.
  async function fill(before = "") {
    const word = search.value.trim();
    const query = new URLSearchParams({ find: word, ...(before && { before }) });
    const found = await send("GET", `${urls.layouts}?${query}`);
    if (word !== search.value.trim()) return; // another word was typed meanwhile
    const rows = found.layouts.map(row);
    if (before) list.append(...rows);
    else list.replaceChildren(...rows);
    older.dataset.before = found.older ?? "";
    older.hidden = found.older === null;
  }
  older.addEventListener("click", () => fill(older.dataset.before).catch((fault) => toast(fault.message)));

  async function keep(title, why, layout) {
    const saved = await send("POST", urls.layouts, { name: title, note: why, layout });
    const item = row(saved);
    list.prepend(item);
    onSaved(saved);
    toast(`Saved as “${saved.name}”.`, async () => {
      await send("DELETE", where(saved.id)).catch((fault) => toast(fault.message));
      item.remove();
      onSaved(null);
    });
  }

  // Under the name it has; a new layout is asked for one.
  async function saveNow() {
    const { id, edition } = kept();
    if (!id) {
      await ask();
      return;
    }
    const saved = await send("PATCH", where(id), { layout: state().layout, was: edition });
    seen(saved);
    onSaved(saved);
    toast(`“${saved.name}” is saved.`, async () => {
      const back = await send("PATCH", where(id), { layout: saved.before.layout, was: saved.edition }).catch((fault) => toast(fault.message));
      if (back) seen(back);
    });
  }

  // How a record is now, in the list.
  function seen(saved) {
    list.querySelector(`[data-id="${saved.id}"]`)?.replaceWith(row(saved));
  }

  async function ask() {
    find("naming-fault").hidden = true;
    name.value = "";
    naming.showModal();
    name.focus();
  }

  find("naming-form").addEventListener("submit", async (event) => {
    event.preventDefault();
    try {
      await keep(name.value, note.value, state().layout);
      naming.close();
    } catch (error) {
      find("naming-fault").textContent = error.message;
      find("naming-fault").hidden = false;
      name.focus();
    }
  });
  find("naming-cancel").addEventListener("click", () => naming.close());

  async function open() {
    opening.showModal();
    if (search.value) {
      search.value = "";
      await fill();
    }
    search.focus();
  }
  let timer = 0;
  search.addEventListener("input", () => {
    clearTimeout(timer);
    timer = setTimeout(() => fill().catch((fault) => toast(fault.message)), PAUSE);
  });

  async function rename(item) {
    const old = item.dataset.name;
    const field = html("input", { class: "form-control", type: "text", value: old, maxlength: "60", "aria-label": `New name of ${old}` });
    const title = item.querySelector("b");
    title.replaceWith(field);
    field.select();
    let over = false;
    const done = async (save) => {
      if (over) return; // leaving the field for its name would end it a second time
      over = true;
      const next = field.value.trim();
      title.textContent = old;
      field.replaceWith(title);
      if (!save || !next || next === old) return;
      try {
        const saved = await send("PATCH", where(item.dataset.id), { name: next, was: item.dataset.edition });
        seen(saved);
        if (isCurrent(saved.id)) onSaved(saved);
      } catch (fault) {
        toast(fault.message);
      }
    };
    field.addEventListener("click", (event) => event.preventDefault());
    field.addEventListener("blur", () => done(true));
    field.addEventListener("keydown", (event) => {
      if (event.key !== "Enter" && event.key !== "Escape") return;
      event.preventDefault();
      done(event.key === "Enter");
    });
  }

  async function remove(item) {
    const gone = await send("DELETE", where(item.dataset.id));
    const next = item.nextElementSibling;
    item.remove();
    opening.close();
    toast(`“${gone.name}” is deleted.`, async () => {
      await send("POST", urls.layouts, gone).then((saved) => list.insertBefore(row(saved), next), (fault) => toast(fault.message));
    });
  }

  list.addEventListener("click", async (event) => {
    const item = event.target.closest("li");
    try {
      if (event.target.closest("[data-rename]")) await rename(item);
      if (event.target.closest("[data-delete]")) await remove(item);
    } catch (fault) {
      toast(fault.message);
    }
  });

  async function copyLink() {
    const { href } = await post(urls.link, JSON.stringify({ layout: state().layout, query: location.search.slice(1) }));
    const link = new URL(href, location.origin).href;
    try {
      await navigator.clipboard.writeText(link);
      toast("The link is copied; it carries its table with it.");
    } catch {
      toast("The browser keeps its clipboard shut: copy the link from the address bar.");
    }
  }

  // A change of the layout as a whole, or of one ball's place, by the rules: Python knows them.
  async function edit(how, more = {}) {
    const { layout, stroke, rails, hit } = state();
    onLayout(await post(urls.edit, JSON.stringify({ layout, how, side: stroke.side, rails, hit, ...more })), how);
  }

  async function changeTable(select) {
    try {
      const { href } = await post(urls.move, JSON.stringify({ layout: state().layout, table: select.value }));
      location.assign(href);
    } catch (fault) {
      select.value = state().layout.table;
      say(`${fault.message} Then change the table.`);
    }
  }

  // A layout that came with a table which the club has not: it stands there from now on.
  async function settle(layout, tableFile) {
    const { name: table } = await post(urls.read_table, tableFile, "text/plain");
    const { href } = await post(urls.move, JSON.stringify({ layout: { ...layout, table }, table }));
    location.assign(href);
  }

  async function read(text, called) {
    try {
      const found = await post(urls.read, text, "text/plain");
      if (found.table) await settle(found.layout, JSON.stringify(found.table));
      else if (found.layout.table !== state().layout.table) location.assign(found.href);
      else onLayout({ layout: found.layout, rails: null }, "open");
    } catch (fault) {
      say(`${called}: ${fault.message}`);
    }
  }

  // A link of Fandle's, wherever it was copied, opens here.
  async function follow(text) {
    try {
      const { pathname, search: query } = new URL(text);
      if (pathname === "/" && query.includes("balls=")) location.assign(`/${query}`);
      else say("that link holds no layout of Fandle's");
    } catch {
      say("what was pasted is neither a link nor a layout file");
    }
  }

  // The table that a link brought is kept: the address stays, with the table's name in this club.
  async function settleLink(tableFile) {
    const { name: table } = await post(urls.read_table, tableFile, "text/plain");
    const query = new URLSearchParams(location.search);
    query.delete("own");
    query.set("table", table);
    location.replace(`/?${query}`);
  }
  return { open, saveas: ask, save: saveNow, link: copyLink, edit, changeTable, read, follow, settleLink };
}
