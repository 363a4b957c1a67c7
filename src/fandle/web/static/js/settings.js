// What every room has: the settings, and the layout that follows from room to room.

const YEAR = 31536000; // s
const HERE = "fandle-here"; // the layout last looked at, in this tab

export function cookie(name, value) {
  document.cookie = `${name}=${value}; path=/; max-age=${YEAR}; samesite=lax`;
  readCookie(name); // reading waits until it is written: what is asked next must carry it
}

export const readCookie = (name) => document.cookie.split("; ").find((part) => part.startsWith(`${name}=`))?.split("=")[1];

// The query that holds the layout, for the other rooms. Without one a room shows its own example.
export function carry(query) {
  sessionStorage.setItem(HERE, query);
  lead();
}

const LEADS = { table: "/", compare: "/compare" }; // rooms that show a layout

function lead() {
  const query = sessionStorage.getItem(HERE);
  if (!query) return;
  for (const link of document.querySelectorAll("[data-room]")) {
    const path = LEADS[link.dataset.room];
    if (path && !link.hasAttribute("data-here")) link.setAttribute("href", `${path}?${query}`);
  }
  const far = document.querySelector("#far-open[data-leads]");
  far?.setAttribute("href", `/?${query}#large`);
  const mine = document.getElementById("on-mine"); // a page of the Handbook shows its own layout until asked
  mine?.setAttribute("href", `${location.pathname}?${query}`);
  mine?.removeAttribute("hidden");
  document.getElementById("menu-open")?.setAttribute("href", `/?${query}#open`);
  document.querySelector(".brand")?.setAttribute("href", `/?${query}`);
}

const help = document.getElementById("help");
export const settings = { open: () => (help.open ? help.close() : help.showModal()) };

// Another table, from any room: the same layout on it, in the Table room.
document.getElementById("header-table")?.addEventListener("change", (event) => {
  const query = new URLSearchParams(sessionStorage.getItem(HERE) ?? "");
  query.delete("name");
  query.set("to", event.target.value);
  if (event.target.value) location.assign(`/move?${query}`);
});

lead();
document.getElementById("help-open").addEventListener("click", settings.open);
document.getElementById("english").addEventListener("change", (event) => {
  cookie("fandle-english", event.target.value);
  location.reload();
});
