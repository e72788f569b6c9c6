// Menus, the benches on a phone, explanations and notices behave as the toolkit has them. It is fetched when somebody
// first touches the page or types, so that no first picture waits for it.
const OPENS = "[data-bs-toggle]:not([data-bs-toggle='tooltip']), [data-bs-dismiss]";
let toolkit, ready = false;

const later = () => (toolkit = undefined); // the shop was away: the next touch asks again
const fetched = () => (toolkit ??= import("../../vendor/bootstrap.js").then(begin).catch(later));

function begin(parts) {
  new parts.Tooltip(document.body, { selector: '[data-bs-toggle="tooltip"]', trigger: "hover focus" });
  for (const notice of document.querySelectorAll(".toast")) parts.Toast.getOrCreateInstance(notice).show();
  document.addEventListener("click", ({ target }) => parts.Tooltip.getInstance(target.closest('[data-bs-toggle="tooltip"]'))?.hide());
  explanations(parts.Popover);
  ready = true;
}

// An explanation opens at its word or number, one at a time; Escape or a tap elsewhere closes it.
function explanations(Popover) {
  let open;
  const close = () => {
    open?.hide();
    open = null;
  };
  document.addEventListener("click", ({ target }) => {
    const word = target.closest('[data-bs-toggle="popover"]');
    if (target.closest(".popover")) return;
    const asked = word && Popover.getOrCreateInstance(word, { trigger: "manual", placement: "bottom", fallbackPlacements: ["top"], content: () => word.dataset.bsContent });
    const again = asked === open;
    close();
    if (!asked || again) return;
    open = asked;
    const { bsTitle, bsContent, means } = word.dataset;
    const body = [means, bsContent].filter(Boolean).join("\n");
    asked.setContent({ ".popover-header": bsTitle ?? word.firstElementChild.textContent, ".popover-body": body });
    asked.show();
  });
  document.addEventListener("keydown", ({ key }) => key === "Escape" && close());
  // What is changed elsewhere may change what it explains: it does not stay open beside it.
  const elsewhere = ({ target }) => target.closest?.('.popover, [data-bs-toggle="popover"]') || close();
  for (const kind of ["pointerdown", "focusin"]) document.addEventListener(kind, elsewhere);
}

for (const kind of ["pointermove", "pointerdown", "keydown", "focusin"]) addEventListener(kind, fetched, { once: true, passive: true });
addEventListener("click", async (event) => {
  const touched = event.target.closest(OPENS);
  if (ready || !touched) return;
  event.preventDefault();
  event.stopImmediatePropagation();
  await fetched();
  if (ready) touched.click();
}, true);
if (document.querySelector('.toast[data-bs-autohide="true"]')) fetched();
