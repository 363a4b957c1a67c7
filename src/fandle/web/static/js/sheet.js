// Where things lie on the drawing: diamonds and rails to millimetres, and back for a pointer.
//
// The server draws a table lying down: mm, x from the head nose, y down from the far nose. On an upright screen it
// stands, the head at the bottom: what is in a group of class "turned" is turned as a whole, everything else is placed
// by `view`, so that words and balls stay upright. Type keeps its size on the screen, so room for it is reckoned in px.

const ROOM = { wide: [62, 48], small: [34, 30], upright: [40, 28] }; // px beside and above the rails, for lines and figures
const SMALL = 560; // px: a drawing narrower than this is small
const MOST_ZOOM = 5;

export function sheet(element) {
  const read = (name) => Number(element.dataset[name]);
  const s = {
    element, upright: false,
    length: read("length"), width: read("width"), radius: read("radius"),
    rail: read("rail"), setback: read("setback"), dx: read("dx"), dy: read("dy"),
  };
  const holes = [...element.querySelectorAll("[data-pocket]")].map((hole) => ["cx", "cy", "r"].map((name) => Number(hole.getAttribute(name))));
  let px = 1; // mm that make a pixel on the screen
  let size = ""; // of the element when it was last fitted
  let extra = []; // points outside the table that are to be seen, too
  let zoom = { by: 1, x: 0, y: 0 };
  s.box = { x: 0, y: 0, width: 1, height: 1 }; // what is seen, mm

  s.mmPerPixel = () => px;
  s.view = (x, y) => (s.upright ? [y, s.length - x] : [x, y]);
  s.way = (dx, dy) => (s.upright ? [dy, -dx] : [dx, dy]);
  s.place = (x, y) => s.view(x * s.dx, s.width - y * s.dy);

  // A point of a rail: `at` diamonds along it, `out` mm outside its nose.
  s.onRail = (rail, at, out) => {
    if (rail === "far") return s.view(at * s.dx, -out);
    if (rail === "near") return s.view(at * s.dx, s.width + out);
    const y = s.width - at * s.dy;
    return rail === "head" ? s.view(-out, y) : s.view(s.length + out, y);
  };
  s.unit = (rail) => (rail === "far" || rail === "near" ? s.dx : s.dy);
  // Does a rail run from left to right on the screen?
  s.level = (rail) => (rail === "far" || rail === "near") !== s.upright;

  // The table with its rails and what else is to be seen, mm: left, top, right, bottom.
  function bounds() {
    const points = [[-s.rail, -s.rail], [s.length + s.rail, s.width + s.rail], ...extra].map(([x, y]) => s.view(x, y));
    const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
    return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
  }

  // Measured when the drawing changes its size, not while drawing: each reading lays out the whole page.
  s.fit = () => {
    const style = getComputedStyle(element);
    const fills = style.getPropertyValue("--fills").trim() === "1"; // the page gives its height, too
    const width = element.clientWidth;
    const height = fills ? element.clientHeight : 0;
    const now = [width, height, style.getPropertyValue("--upright")].join();
    if (now === size || width === 0) return false;
    size = now;
    s.upright = style.getPropertyValue("--upright").trim() === "1";
    const [beside, above] = s.upright ? ROOM.upright : width < SMALL ? ROOM.small : ROOM.wide;
    const [left, top, right, bottom] = bounds();
    px = (right - left) / Math.max(width - 2 * beside, 1);
    if (fills) px = Math.max(px, (bottom - top) / Math.max(height - 2 * above, 1));
    const high = fills ? height * px : bottom - top + 2 * above * px;
    s.whole = { x: (left + right - width * px) / 2, y: (top + bottom - high) / 2, width: width * px, height: high, px };
    if (!fills) element.style.aspectRatio = `${width} / ${high / px}`;
    for (const group of element.querySelectorAll(".turned")) {
      if (s.upright) group.setAttribute("transform", `matrix(0 -1 1 0 0 ${s.length})`);
      else group.removeAttribute("transform");
    }
    look();
    return true;
  };

  // Show what the zoom leaves of the whole; never less than the table's own edge in view.
  function look() {
    const width = s.whole.width / zoom.by;
    const height = s.whole.height / zoom.by;
    const hold = (at, low, high) => Math.min(Math.max(at, low), high);
    zoom.x = hold(zoom.x, s.whole.x + width / 2, s.whole.x + s.whole.width - width / 2);
    zoom.y = hold(zoom.y, s.whole.y + height / 2, s.whole.y + s.whole.height - height / 2);
    s.box = { x: zoom.x - width / 2, y: zoom.y - height / 2, width, height };
    px = s.whole.px / zoom.by;
    element.setAttribute("viewBox", `${s.box.x} ${s.box.y} ${width} ${height}`);
    element.style.setProperty("--px", `${px}px`);
  }

  s.zoomed = () => zoom.by;
  // Magnified so many times, with that point (mm) in the middle.
  s.zoom = (by, x = zoom.x, y = zoom.y) => {
    zoom = { by: Math.min(Math.max(by, 1), MOST_ZOOM), x, y };
    look();
  };

  // The drawing grows to hold points outside it (mm), and shrinks back when there are none.
  s.include = (points) => {
    if (JSON.stringify(points) === JSON.stringify(extra)) return;
    extra = points;
    size = "";
    s.fit();
  };

  // Millimetres as they are seen, under a pointer; and as the server counts them.
  s.seen = (event) => {
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(element.getScreenCTM().inverse());
    return [point.x, point.y];
  };
  s.point = (event) => {
    const [x, y] = s.seen(event);
    return s.upright ? [s.length - y, x] : [x, y];
  };

  // Diamonds under a pointer.
  s.under = (event) => {
    const [x, y] = s.point(event);
    return [x / s.dx, (s.width - y) / s.dy];
  };

  // Kept where a ball can lie on the bed; at a pocket as it is: how far a ball can hang there, Python knows.
  s.kept = (x, y) => {
    const rx = s.radius / s.dx;
    const ry = s.radius / s.dy;
    if (holes.some(([cx, cy, r]) => Math.hypot(x * s.dx - cx, s.width - y * s.dy - cy) < r + s.radius)) return [x, y];
    return [
      Math.min(Math.max(x, rx), s.length / s.dx - rx),
      Math.min(Math.max(y, ry), s.width / s.dy - ry),
    ];
  };

  // A step on the screen (right, down) as a step along x and y of the table.
  s.step = (right, down) => (s.upright ? [-down, -right] : [right, -down]);
  s.fit();
  return s;
}
