// Clocks count down to their end, ring once there, and go on ringing until someone stops them; they are kept by the shop, not by the page.
import { post } from "../shared/post.js";

const lists = [...document.querySelectorAll("[data-clocks]")];
const { signal } = new AbortController();
const RING_EVERY_MS = 4000, LATER_MS = 60000, SOON_S = 600; // after ten minutes it only reminds
let sound = null, rang = 0;

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
  try {
    sound ??= new AudioContext();
    for (const at of [0, 0.25, 0.5]) {
      const voice = sound.createOscillator(), loud = sound.createGain();
      voice.frequency.value = 660;
      loud.gain.setValueAtTime(0.2, sound.currentTime + at);
      loud.gain.exponentialRampToValueAtTime(0.001, sound.currentTime + at + 0.2);
      voice.connect(loud).connect(sound.destination);
      voice.start(sound.currentTime + at);
      voice.stop(sound.currentTime + at + 0.21);
    }
  } catch {
    // without sound the colour has to do
  }
}

// A page that is left open learns of clocks that others start or stop.
async function follow() {
  if (document.hidden) return;
  try {
    const answer = await fetch("/mixes/clocks.json", { headers: { Accept: "application/json" }, signal });
    if (!answer.ok) return;
    const known = new Set((await answer.json()).clocks.map((row) => String(row.id)));
    for (const row of document.querySelectorAll("[data-clock]")) if (!known.has(row.dataset.clock)) row.remove();
    const shown = new Set([...document.querySelectorAll("[data-clock]")].map((row) => row.dataset.clock));
    if (location.pathname === "/mixes/clocks" && [...known].some((key) => !shown.has(key))) location.reload();
  } catch {
    // the shop is away: the clocks count on by themselves
  }
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
  setInterval(follow, 15000);
}
