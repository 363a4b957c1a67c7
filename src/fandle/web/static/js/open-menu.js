// What opens, saves and brings in layouts: keys, menus, paste a link or a file, drop one. The work is kept-layouts.js's,
// which is fetched when it is first asked for.

export function openMenu(urls, hooks) {
  const { say } = hooks;
  const find = (id) => document.getElementById(id);
  let fetched = null;

  async function use(what, ...about) {
    fetched ??= import("./kept-layouts.js").then((part) => part.keptLayouts(urls, hooks));
    const part = await fetched.catch(() => null);
    if (!part) {
      fetched = null; // it is asked for again next time
      say("Fandle does not answer: look at the connection, then try again.");
      return;
    }
    await part[what](...about).catch((fault) => say(fault.message));
  }

  const actions = { open: () => use("open"), saveas: () => use("saveas"), link: () => use("link"), keep: (key) => use("settleLink", key.value), print: () => window.print() };
  find("open-menu").addEventListener("click", actions.open);
  find("save-now").addEventListener("click", () => use("save"));
  document.addEventListener("click", (event) => {
    const key = event.target.closest("[data-do]");
    actions[key?.dataset.do]?.(key);
    const how = event.target.closest("[data-edit]")?.dataset.edit;
    if (how) use("edit", how, how === "scatter" ? { seed: Math.floor(Math.random() * 2 ** 31) } : {});
  });
  find("table-choice").addEventListener("change", (event) => use("changeTable", event.target));
  find("open").addEventListener("change", async (event) => {
    const [file] = event.target.files;
    event.target.value = "";
    if (file) use("read", await file.text(), file.name);
  });

  document.addEventListener("paste", (event) => {
    if (event.target.closest?.("input, textarea, select")) return;
    const text = event.clipboardData?.getData("text/plain").trim();
    if (text) use(...(text.startsWith("{") ? ["read", text, "pasted"] : ["follow", text]));
  });
  document.addEventListener("dragover", (event) => event.preventDefault());
  document.addEventListener("drop", async (event) => {
    event.preventDefault();
    const [file] = event.dataTransfer.files;
    const text = event.dataTransfer.getData("text/plain").trim();
    if (file) use("read", await file.text(), file.name);
    else if (text) use("follow", text);
  });

  return { open: actions.open, toSpot: (ball) => use("edit", "spot", { ball }) };
}
