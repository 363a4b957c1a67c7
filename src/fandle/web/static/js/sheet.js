// Where things lie on the drawing: diamonds and rails to millimetres, and back for a pointer.

export function sheet(element) {
  const read = (name) => Number(element.dataset[name]);
  const s = {
    element,
    length: read("length"), width: read("width"), radius: read("radius"),
    rail: read("rail"), setback: read("setback"), dx: read("dx"), dy: read("dy"),
  };

  s.place = (x, y) => [x * s.dx, s.width - y * s.dy];

  // A point of a rail: `at` diamonds along it, `out` mm outside its nose.
  s.onRail = (rail, at, out) => {
    if (rail === "far") return [at * s.dx, -out];
    if (rail === "near") return [at * s.dx, s.width + out];
    const y = s.width - at * s.dy;
    return rail === "head" ? [-out, y] : [s.length + out, y];
  };

  // Measured when the drawing changes its size, not while drawing: each reading lays out the whole page.
  let px = 1;
  let wide = 0;
  const own = element.getAttribute("viewBox");
  const [x0, y0, wide0, high0] = own.split(" ").map(Number);
  const shape = (width, height) => element.style.setProperty("--ratio", (width / height).toFixed(4));
  shape(wide0, high0);
  s.mmPerPixel = () => px;

  // The drawing grows to hold points outside it (mm), and shrinks back when there are none.
  s.include = (points) => {
    const edge = Math.max(60, 14 * px * 1.5);
    const xs = points.map(([x]) => x);
    const ys = points.map(([, y]) => y);
    const left = Math.min(x0, ...xs.map((x) => x - edge));
    const top = Math.min(y0, ...ys.map((y) => y - edge));
    const right = Math.max(x0 + wide0, ...xs.map((x) => x + edge));
    const bottom = Math.max(y0 + high0, ...ys.map((y) => y + edge));
    const grown = left < x0 || top < y0 || right > x0 + wide0 || bottom > y0 + high0;
    const view = grown ? `${left} ${top} ${right - left} ${bottom - top}` : own;
    if (element.getAttribute("viewBox") === view) return;
    element.setAttribute("viewBox", view);
    shape(right - left, bottom - top);
    wide = 0;
    s.fit();
  };

  // Type keeps its size on screen, so a small drawing needs more room around it for the dimension lines.
  s.fit = () => {
    if (element.clientWidth === wide) return;
    wide = element.clientWidth;
    px = element.viewBox.baseVal.width / Math.max(wide, 1);
    element.style.setProperty("--px", `${px}px`);
    const spare = (-element.viewBox.baseVal.y - s.rail) / px;
    const [above, below] = wide < 500 ? [36, 32] : [50, 48];
    element.style.marginTop = `${Math.max(above - spare, 0)}px`;
    element.style.marginBottom = `${Math.max(below - spare, 0)}px`;
  };

  // Drawing millimetres under a pointer.
  s.point = (event) => {
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(element.getScreenCTM().inverse());
    return [point.x, point.y];
  };

  // Diamonds under a pointer, kept where a ball can lie on the bed.
  s.under = (event) => {
    const [x, y] = s.point(event);
    return s.kept(x / s.dx, (s.width - y) / s.dy);
  };

  s.kept = (x, y) => {
    const rx = s.radius / s.dx;
    const ry = s.radius / s.dy;
    return [
      Math.min(Math.max(x, rx), s.length / s.dx - rx),
      Math.min(Math.max(y, ry), s.width / s.dy - ry),
    ];
  };
  s.fit();
  return s;
}
