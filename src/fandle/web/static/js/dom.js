// Small helpers to make elements. No state.

const SVG = "http://www.w3.org/2000/svg";

export function svg(name, attributes = {}, ...children) {
  const element = document.createElementNS(SVG, name);
  for (const [key, value] of Object.entries(attributes)) element.setAttribute(key, value);
  element.append(...children);
  return element;
}

export function html(name, attributes = {}, ...children) {
  const element = document.createElement(name);
  for (const [key, value] of Object.entries(attributes)) {
    if (key === "class") element.className = value;
    else if (value === true) element.setAttribute(key, "");
    else if (value !== false && value !== null) element.setAttribute(key, value);
  }
  element.append(...children.filter((child) => child !== null && child !== ""));
  return element;
}

// Writing what stands there already would still have it laid out and painted again.
export function put(element, attributes) {
  for (const [key, value] of Object.entries(attributes)) {
    if (element.getAttribute(key) !== String(value)) element.setAttribute(key, value);
  }
}

// Words as a sentence: a capital first, a full stop last.
export const sentence = (words) => words && `${words[0].toUpperCase()}${words.slice(1)}${/[.!?]$/.test(words) ? "" : "."}`;

export function say(element, text) {
  if (element.textContent !== text) element.textContent = text;
}

// The same drawing, left alone while what it draws is the same.
export function whenChanged(draw) {
  let last = null;
  return (...data) => {
    const now = JSON.stringify(data);
    if (now === last) return;
    last = now;
    draw(...data);
  };
}

// At once, then no more often than every `pause` ms; the last data are always drawn.
export function atMost(pause, draw) {
  let last = -pause;
  let data = null;
  function go() {
    last = performance.now();
    const now = data;
    data = null;
    draw(...now);
  }
  return (...next) => {
    const pending = data !== null;
    data = next;
    if (pending) return;
    const left = last + pause - performance.now();
    if (left <= 0) go();
    else setTimeout(go, left);
  };
}
