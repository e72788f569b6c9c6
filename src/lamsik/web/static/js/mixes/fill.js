// The tare-and-fill guide: the bar of the part at hand follows the scale, slows the hand near the mark, and says when it is past.
const list = document.querySelector("[data-fill]");
const value = document.getElementById("scale-value");

function show() {
  const row = list.querySelector("li.here") ?? [...list.children].find((item) => item.querySelector("form"));
  if (!row) return;
  const typed = row.querySelector("input[data-weigh]")?.value, shown = typed || value?.textContent || "";
  const grams = Number.parseFloat(shown.replace("−", "-").replace(",", ".")), target = Number(row.dataset.target);
  if (!Number.isFinite(grams)) return;
  const share = grams / target;
  row.querySelector(".level").style.setProperty("inline-size", `${Math.min(Math.max(share, 0), 1.2) / 1.2 * 100}%`);
  row.classList.toggle("near", share > 0.9 && share < 0.995);
  row.classList.toggle("full", share >= 0.995 && share <= 1.005);
  row.classList.toggle("past", share > 1.005);
}

for (const done of list.querySelectorAll("li.done .level")) done.style.setProperty("inline-size", `${100 / 1.2}%`);
if (value) new MutationObserver(show).observe(value, { childList: true, characterData: true, subtree: true });
list.addEventListener("input", show);
show();
