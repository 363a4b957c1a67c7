// One line at the foot of the page that says what was done, with a way back.

const element = document.getElementById("toast");
let timer = 0;

export function toast(text, undo = null) {
  element.replaceChildren(text);
  if (undo) {
    const button = document.createElement("button");
    button.type = "button";
    button.className = "btn tool";
    button.textContent = "Undo";
    button.addEventListener("click", async () => {
      element.hidden = true;
      await undo();
    });
    element.append(button);
  }
  element.hidden = false;
  clearTimeout(timer);
  timer = setTimeout(() => { element.hidden = true; }, 9000);
}
