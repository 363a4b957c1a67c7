// Shortcuts. They keep quiet while somebody types or a dialog is open.

export function shortcuts(actions) {
  document.addEventListener("keydown", (event) => {
    const typing = event.target.closest("input[type=text], input[type=number], textarea, select");
    if (typing || document.querySelector("dialog[open]")) return;
    const ctrl = event.ctrlKey || event.metaKey;
    let name = event.key.length === 1 ? event.key.toLowerCase() : event.key;
    if (ctrl && name === "z") name = event.shiftKey ? "redo" : "undo";
    else if (ctrl && name === "y") name = "redo";
    else if (ctrl || event.altKey) return;
    if (!(name in actions)) return;
    event.preventDefault();
    actions[name]();
  });
}
