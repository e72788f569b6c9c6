// The fill guide: the bar of the part at hand follows the scale, slows the hand near the mark, and says when it is past.
import { gramsOf } from "../shared/units.js";

const list = document.querySelector("[data-fill]");
let poured = null;

function show() {
  const row = list.querySelector("li.here") ?? [...list.children].find((item) => item.querySelector("form.weigh"));
  const input = row?.querySelector("input[data-weigh]");
  if (!input) return; // not asked for yet: what lies on the scale is no part of it
  const grams = input.value.trim() ? gramsOf(input.value, list.dataset.unit) : poured, target = Number(row.dataset.target), have = Number(row.dataset.have);
  if (grams === null || !Number.isFinite(grams)) return;
  const share = (have + grams) / target;
  row.querySelector(".progress-bar").style.setProperty("width", `${Math.min(Math.max(share, 0), 1.2) / 1.2 * 100}%`);
  const near = Number(list.dataset.near), within = Number(list.dataset.within);
  row.classList.toggle("near", share > near && share < 1 - within);
  row.classList.toggle("full", Math.abs(share - 1) <= within);
  row.classList.toggle("past", share > 1 + within);
}

for (const row of list.querySelectorAll("li")) {
  const share = Number(row.dataset.have) / Number(row.dataset.target);
  if (share) row.querySelector(".progress-bar").style.setProperty("width", `${Math.min(share, 1.2) / 1.2 * 100}%`);
}
document.addEventListener("weighed", ({ detail }) => {
  poured = detail.net;
  show();
});
list.addEventListener("input", show);
show();
