// Dark for the spray corner, light for the desk: as the system has it until it is switched in this browser.
const root = document.documentElement, button = document.getElementById("theme");
const system = matchMedia("(prefers-color-scheme: dark)");
const isDark = () => (root.dataset.bsTheme ?? (system.matches ? "dark" : "light")) === "dark";
const tell = () => button.setAttribute("aria-pressed", isDark());

button?.addEventListener("click", () => {
  root.dataset.bsTheme = isDark() ? "light" : "dark";
  document.cookie = `theme=${root.dataset.bsTheme}; path=/; max-age=31536000; samesite=lax`;
  tell();
});
system.addEventListener("change", tell);
if (button) tell();
