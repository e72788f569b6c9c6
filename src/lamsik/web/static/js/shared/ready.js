// The last module of a page: what would not answer before its modules were there (`inert`) answers now,
// and what a form refused is brought into sight, its field ready to be mended.
const main = document.getElementById("main");
main.inert = false;
const refused = main.querySelector("form .problem[role='alert']");
if (refused?.textContent.trim()) {
  for (let fold = refused.closest("details"); fold; fold = fold.parentElement.closest("details")) fold.open = true;
  const field = refused.closest(".field")?.querySelector("input, select, textarea");
  (field ?? refused).scrollIntoView({ block: "center" });
  field?.focus({ preventScroll: true });
}

if (document.querySelector("[data-find]")) import("./find.js");
import "./wide.js";

// A page that comes back out of the browser's memory asks the shop anew: what it shows, and its forms, may be of yesterday.
addEventListener("pageshow", (event) => {
  if (event.persisted) location.reload();
});
