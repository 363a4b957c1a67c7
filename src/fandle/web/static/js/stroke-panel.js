// Speed, side and height: sliders, and the tip on the ball. Sends lengths and tips; Python converts.

export function strokePanel(element, limit, onChange) {
  const speed = element.querySelector("#speed");
  const side = element.querySelector("#side");
  const height = element.querySelector("#height");
  const tip = element.querySelector("#tip");
  const spot = element.querySelector("#tip-spot");
  const scale = 27 / limit; // the dashed circle is the miscue limit

  // Keep the tip inside the miscue limit by giving way on the other axis.
  function inside(kept, other) {
    const room = Math.sqrt(Math.max(limit * limit - kept * kept, 0));
    return Math.min(Math.max(other, -room), room);
  }

  function show(tips, up) {
    spot.setAttribute("cx", tips * scale);
    spot.setAttribute("cy", -up * scale);
  }

  function send(change) {
    show(Number(side.value), Number(height.value));
    onChange(change);
  }

  speed.addEventListener("input", () => send({ lengths: Number(speed.value) }));
  side.addEventListener("input", () => {
    height.value = inside(Number(side.value), Number(height.value));
    send({ tips: Number(side.value), height: Number(height.value) });
  });
  height.addEventListener("input", () => {
    side.value = inside(Number(height.value), Number(side.value));
    send({ tips: Number(side.value), height: Number(height.value) });
  });

  function drag(event) {
    const box = tip.getBoundingClientRect();
    let x = (((event.clientX - box.left) / box.width) * 112 - 56) / scale;
    let y = -(((event.clientY - box.top) / box.height) * 112 - 56) / scale;
    const size = Math.hypot(x, y);
    if (size > limit) [x, y] = [(x * limit) / size, (y * limit) / size];
    if (size < 0.06) [x, y] = [0, 0]; // the centre is easy to find again
    side.value = x;
    height.value = y;
    send({ tips: Number(side.value), height: Number(height.value) });
  }
  tip.addEventListener("pointerdown", (event) => {
    tip.setPointerCapture(event.pointerId);
    drag(event);
  });
  tip.addEventListener("pointermove", (event) => {
    if (tip.hasPointerCapture(event.pointerId)) drag(event);
  });

  return function draw(stroke) {
    const active = document.activeElement;
    if (active !== speed) speed.value = stroke.lengths;
    if (active !== side) side.value = stroke.tips;
    if (active !== height) height.value = stroke.height;
    if (!tip.matches(":active")) show(stroke.tips, stroke.height);
    element.querySelector("#speed-out").textContent = stroke.speed_text;
    element.querySelector("#side-out").textContent = stroke.side_text;
    element.querySelector("#height-out").textContent = stroke.height_text;
  };
}
