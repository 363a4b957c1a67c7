// Two fingers: pinch to magnify, move to shift what is seen. A double tap shows the whole table again.

export function zoom(sheet, onLook) {
  const fingers = new Map();
  let began = null;
  let queued = false;

  function redraw() {
    if (queued) return;
    queued = true;
    requestAnimationFrame(() => {
      queued = false;
      onLook();
    });
  }

  const spread = (a, b) => Math.hypot(a.clientX - b.clientX, a.clientY - b.clientY);
  const middle = (a, b) => ({ clientX: (a.clientX + b.clientX) / 2, clientY: (a.clientY + b.clientY) / 2 });

  sheet.element.addEventListener("pointerdown", (event) => {
    if (event.pointerType === "mouse") return;
    fingers.set(event.pointerId, event);
    const [a, b] = fingers.values();
    began = fingers.size === 2 ? { by: sheet.zoomed(), apart: spread(a, b), at: sheet.seen(middle(a, b)) } : null;
  }, true);

  sheet.element.addEventListener("pointermove", (event) => {
    if (!fingers.has(event.pointerId)) return;
    fingers.set(event.pointerId, event);
    if (!began || fingers.size !== 2) return;
    const [a, b] = fingers.values();
    sheet.zoom((began.by * spread(a, b)) / began.apart);
    const [x, y] = sheet.seen(middle(a, b)); // what was between the fingers stays there
    sheet.zoom(sheet.zoomed(), sheet.box.x + sheet.box.width / 2 + began.at[0] - x, sheet.box.y + sheet.box.height / 2 + began.at[1] - y);
    redraw();
  });

  for (const end of ["pointerup", "pointercancel"]) {
    sheet.element.addEventListener(end, (event) => {
      fingers.delete(event.pointerId);
      began = null;
    });
  }

  sheet.element.addEventListener("dblclick", () => {
    if (sheet.zoomed() === 1) return;
    sheet.zoom(1);
    redraw();
  });
}
