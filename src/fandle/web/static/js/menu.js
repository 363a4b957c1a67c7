// The Layout menu: save, duplicate, copy link, flip, swap, clear, files.

import { Fault, post, send } from "./ask.js";
import { html } from "./dom.js";
import { toast } from "./toast.js";

export function layoutMenu(urls, { state, onLayout, say }) {
  const find = (id) => document.getElementById(id);
  const naming = find("naming");
  const name = find("layout-name");
  const note = find("layout-note");

  function listed(saved) {
    const link = html("a", { class: "dropdown-item", href: saved.href }, html("b", {}, saved.name), html("span", {}, saved.note));
    find("saved").append(html("li", {}, link));
    return link.parentElement;
  }

  async function keep(title, why, layout) {
    const saved = await send("POST", urls.layouts, { name: title, note: why, layout });
    const item = listed(saved);
    toast(`Saved as “${saved.name}”.`, async () => {
      await send("DELETE", `${urls.layouts}/${encodeURIComponent(saved.name)}`).catch((fault) => toast(fault.message));
      item.remove();
    });
  }

  find("naming-form").addEventListener("submit", async (event) => {
    event.preventDefault();
    const fault = find("naming-fault");
    try {
      await keep(name.value, note.value, state().layout);
      naming.close();
    } catch (error) {
      fault.textContent = error.message;
      fault.hidden = false;
      name.focus();
    }
  });
  find("naming-cancel").addEventListener("click", () => naming.close());

  // A free name for a copy: "copy", "copy 2", …
  async function duplicate() {
    const base = "Copy of the layout";
    for (let n = 1; n < 100; n += 1) {
      try {
        await keep(n === 1 ? base : `${base} ${n}`, "", state().layout);
        return;
      } catch (error) {
        if (!(error instanceof Fault) || error.field !== "name") throw error;
      }
    }
  }

  const actions = {
    save: () => {
      find("naming-fault").hidden = true;
      name.value = "";
      naming.showModal();
      name.focus();
    },
    duplicate,
    link: async () => {
      try {
        await navigator.clipboard.writeText(location.href);
        toast("The link is copied.");
      } catch {
        toast("The browser keeps its clipboard shut: copy the link from the address bar.");
      }
    },
  };

  document.addEventListener("click", async (event) => {
    const action = event.target.closest("[data-do]")?.dataset.do;
    const how = event.target.closest("[data-edit]")?.dataset.edit;
    try {
      if (action) await actions[action]();
      if (how) {
        const { layout, stroke, rails, hit } = state();
        onLayout(await post(urls.edit, JSON.stringify({ layout, how, side: stroke.side, rails, hit })), how);
      }
    } catch (fault) {
      say(fault.message);
    }
  });

  find("table-choice").addEventListener("change", async (event) => {
    try {
      const { href } = await post(urls.move, JSON.stringify({ layout: state().layout, table: event.target.value }));
      location.assign(href);
    } catch (fault) {
      event.target.value = state().layout.table;
      say(`${fault.message} Then change the table.`);
    }
  });

  find("open").addEventListener("change", async (event) => {
    const [file] = event.target.files;
    event.target.value = "";
    if (!file) return;
    try {
      const read = await post(urls.read, await file.text(), "text/plain");
      if (read.table) { // it came with a table that the club has not: it stands there from now on
        const { name: table } = await post(urls.read_table, JSON.stringify(read.table), "text/plain");
        const { href } = await post(urls.move, JSON.stringify({ layout: { ...read.layout, table }, table }));
        location.assign(href);
      } else if (read.layout.table !== state().layout.table) location.assign(read.href);
      else onLayout({ layout: read.layout, rails: null }, "open");
    } catch (fault) {
      say(`${file.name}: ${fault.message}`);
    }
  });
}
