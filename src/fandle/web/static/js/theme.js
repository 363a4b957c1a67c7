// Day or night before the first paint: by hand if chosen, else as the system says. A classic script on purpose.
(() => {
  const KEY = "fandle-theme";
  const root = document.documentElement;
  const system = window.matchMedia("(prefers-color-scheme: dark)");
  const chosen = () => window.localStorage.getItem(KEY) || "auto";

  function apply() {
    const choice = chosen();
    const night = choice === "night" || (choice === "auto" && system.matches);
    root.dataset.theme = night ? "night" : "day";
    root.dataset.bsTheme = night ? "dark" : "light";
    const button = document.getElementById("theme");
    if (!button) return;
    button.textContent = `Theme: ${choice}`;
  }

  apply();
  system.addEventListener("change", apply);
  document.addEventListener("DOMContentLoaded", () => {
    apply();
    document.getElementById("theme").addEventListener("click", () => {
      const next = { auto: "night", night: "day", day: "auto" }[chosen()];
      window.localStorage.setItem(KEY, next);
      apply();
    });
  });
})();
