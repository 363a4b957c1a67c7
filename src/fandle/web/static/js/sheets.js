// On a phone the lists and controls are half sheets below the table, opened by the four keys; one at a time.

export function sheets(element) {
  const keys = [...element.querySelectorAll("[data-sheet]")];
  const sheetOf = (key) => document.getElementById(key.dataset.sheet);

  function open(key) {
    for (const each of keys) {
      const on = each === key && each.getAttribute("aria-expanded") !== "true";
      each.setAttribute("aria-expanded", String(on));
      sheetOf(each).classList.toggle("sheet-open", on);
    }
  }

  for (const key of keys) key.addEventListener("click", () => open(key));
  document.addEventListener("keydown", (event) => { if (event.key === "Escape") open(null); });
}
