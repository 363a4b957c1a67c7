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
