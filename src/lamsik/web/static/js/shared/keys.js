// Keys that work on every page: ? for the list, / for search, g and a letter for a bench.
const WAYS = { t: "/", o: "/orders", s: "/shapes", k: "/tank", f: "/floats", w: "/scale", m: "/moulds", x: "/mixes", p: "/paints", i: "/pieces", r: "/stores", h: "/handbook" };
let going = false;

const typing = (target) => target.closest("input, select, textarea, [contenteditable]");

document.addEventListener("keydown", (event) => {
  if (typing(event.target) || event.ctrlKey || event.metaKey || event.altKey) return;
  if (going && WAYS[event.key]) location.assign(WAYS[event.key]);
  going = event.key === "g";
  if (event.key === "?") document.getElementById("keys").showModal();
  if (event.key === "/") {
    event.preventDefault();
    document.getElementById("q-all").focus();
  }
});
