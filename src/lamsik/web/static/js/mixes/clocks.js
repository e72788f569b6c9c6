// Clocks count down to their end, ring once there, and go on ringing until someone stops them; they are kept by the shop, not by the page.
import { again, get, post } from "../shared/post.js";

const lists = [...document.querySelectorAll("[data-clocks]")];
const { signal } = new AbortController();
const RING_EVERY_MS = 4000, LATER_MS = 60000, SOON_S = 600; // after ten minutes it only reminds
let rang = 0;

// The shop's clock counts: a tablet's own may be off.
const shift = lists.length ? Date.parse(lists[0].dataset.now) - Date.now() : 0;
const left = (row) => (Date.parse(row.dataset.ends) - (Date.now() + shift)) / 1000;

function spoken(seconds) {
  const over = seconds < 0, all = Math.abs(Math.round(seconds));
  const days = Math.floor(all / 86400), h = Math.floor((all % 86400) / 3600), m = Math.floor((all % 3600) / 60), s = all % 60;
  const two = (n) => String(n).padStart(2, "0");
  const text = days ? `${days} d ${h} h` : h ? `${h}:${two(m)} h` : `${m}:${two(s)}`;
  return over ? `+${text}` : text;
}

function tick() {
  let every = Infinity;
  for (const list of lists) {
    for (const row of list.children) {
      const seconds = left(row), output = row.querySelector("output");
      const text = spoken(seconds);
      if (output.textContent !== text) output.textContent = text;
      row.classList.toggle("soon", seconds > 0 && seconds < 60);
      row.classList.toggle("over", seconds <= 0);
      if (seconds <= 0) every = Math.min(every, seconds > -SOON_S ? RING_EVERY_MS : LATER_MS);
    }
  }
  if (Date.now() - rang > every) ring();
}

function ring() {
  rang = Date.now();
  document.documentElement.dataset.rang = String(Number(document.documentElement.dataset.rang ?? 0) + 1);
  import("../shared/tone.js").then(({ tone }) => tone({ hertz: 660, loud: 0.2, last: 0.2, at: [0, 0.25, 0.5] }));
}

// A page that is left open learns of clocks that others start or stop; while the shop is away they count on by themselves.
async function follow(asked) {
  const answer = await get("/mixes/clocks.json", { signal: asked });
  if (!answer.ok) return;
  const known = new Set(answer.body.clocks.map((row) => String(row.id)));
  for (const row of document.querySelectorAll("[data-clock]")) if (!known.has(row.dataset.clock)) row.remove();
  const shown = new Set([...document.querySelectorAll("[data-clock]")].map((row) => row.dataset.clock));
  if (location.pathname === "/mixes/clocks" && [...known].some((key) => !shown.has(key))) location.reload();
}

document.addEventListener("click", async ({ target }) => {
  const button = target.closest("button[data-stop]");
  if (!button) return;
  const answer = await post(`/mixes/clocks/${button.dataset.stop}/stop`, {});
  if (!answer.ok) return button.after(Object.assign(document.createElement("small"), { className: "problem", textContent: answer.message }));
  for (const row of document.querySelectorAll(`[data-clock="${button.dataset.stop}"]`)) row.remove();
}, { signal });

if (lists.length) {
  tick();
  setInterval(tick, 250);
  again(follow, 15000).later();
}
