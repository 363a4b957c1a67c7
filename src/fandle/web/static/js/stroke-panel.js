// Speed, side and height: sliders, and the tip on the ball. Sends lengths and tips; Python converts.

const EDGE = 27; // drawing units of the dashed circle, the miscue limit
const HALF = 56; // half the drawing
const STEPS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowDown: [0, -1], ArrowUp: [0, 1] };

export function strokePanel(element, onChange, onHit, onCue) {
  const find = (id) => element.querySelector(id);
  const [speed, side, height, cue, hit] = ["#speed", "#side", "#height", "#cue", "#hit"].map(find);
  const tip = find("#tip");
  const spot = find("#tip-spot");
  let limit = 1; // tips, as the server says

  // Keep the tip inside the miscue limit by giving way on the other axis.
  function inside(kept, other) {
    const room = Math.sqrt(Math.max(limit * limit - kept * kept, 0));
    return Math.min(Math.max(other, -room), room);
  }

  function show(tips, up) {
    spot.setAttribute("cx", (tips * EDGE) / limit);
    spot.setAttribute("cy", (-up * EDGE) / limit);
  }

  // The sliders round to their steps, so what is sent is not read back from them.
  function sendTip(tips, up, kind) {
    [side.value, height.value] = [tips, up];
    show(tips, up);
    onChange({ tips, height: up }, kind);
  }

  function put(x, y, kind) {
    const size = Math.hypot(x, y);
    const shrink = size > limit ? limit / size : 1;
    sendTip(x * shrink, y * shrink, kind);
  }

  speed.addEventListener("input", () => onChange({ lengths: Number(speed.value) }, "speed"));
  side.addEventListener("input", () => {
    const tips = Number(side.value);
    sendTip(tips, inside(tips, Number(height.value)), "side");
  });
  height.addEventListener("input", () => {
    const up = Number(height.value);
    sendTip(inside(up, Number(side.value)), up, "height");
  });

  // The steps beside each track: a tenth of a length, an eighth of a tip.
  const SIZES = { speed: 0.1, side: 0.125, height: 0.125 };
  for (const button of element.querySelectorAll("[data-step]")) {
    button.addEventListener("click", () => {
      const slider = find(`#${button.dataset.step}`);
      const size = SIZES[button.dataset.step];
      slider.value = (Math.round(Number(slider.value) / size) + Number(button.dataset.by)) * size;
      slider.dispatchEvent(new Event("input"));
    });
  }

  hit.addEventListener("input", () => onHit(Math.abs(hit.value) < 0.03 ? 0 : Number(hit.value)));
  cue.addEventListener("change", () => {
    onChange({ cue: cue.value }, "cue");
    onCue(cue.value);
  });

  let box = null; // measured when a drag begins: what is above may grow a line meanwhile

  function drag(event) {
    const x = ((event.clientX - box.left) / box.width - 0.5) * 2 * HALF * (limit / EDGE);
    const y = -((event.clientY - box.top) / box.height - 0.5) * 2 * HALF * (limit / EDGE);
    const centred = Math.hypot(x, y) < 0.06; // the centre is easy to find again
    put(centred ? 0 : x, centred ? 0 : y, "tip");
  }
  tip.addEventListener("pointerdown", (event) => {
    tip.setPointerCapture(event.pointerId);
    box = tip.getBoundingClientRect();
    drag(event);
  });
  tip.addEventListener("pointermove", (event) => {
    if (tip.hasPointerCapture(event.pointerId)) drag(event);
  });
  tip.addEventListener("keydown", (event) => {
    const way = STEPS[event.key];
    if (!way) return;
    event.preventDefault();
    const step = event.shiftKey ? 0.05 : 0.25;
    const onGrid = (value) => Math.round(value / step) * step;
    put(onGrid(Number(side.value) + way[0] * step), onGrid(Number(height.value) + way[1] * step), "tip keys");
  });

  return function draw(stroke, thickness, thicknessText) {
    limit = stroke.limit;
    for (const slider of [side, height]) [slider.min, slider.max] = [-limit, limit];
    const active = document.activeElement;
    if (active !== speed) speed.value = stroke.lengths;
    if (active !== side) side.value = stroke.tips;
    if (active !== height) height.value = stroke.height;
    if (!tip.matches(":active")) show(stroke.tips, stroke.height);
    if (active !== hit) hit.value = thickness;
    cue.value = stroke.cue;
    find("#hit-out").textContent = thicknessText;
    const where = stroke.clock === "centre" ? "centre" : `${stroke.clock} · ${stroke.percent} %`;
    speed.setAttribute("aria-valuetext", `${stroke.speed_text}, ${stroke.speed_more}`);
    side.setAttribute("aria-valuetext", stroke.side_text);
    height.setAttribute("aria-valuetext", stroke.height_text);
    hit.setAttribute("aria-valuetext", thicknessText);
    tip.setAttribute("aria-valuenow", stroke.tips.toFixed(2));
    tip.setAttribute("aria-valuetext", `${stroke.side_text}, height ${stroke.height_text}; ${where} of the miscue limit`);
  };
}
