// The picture from four sides, or the bait in the hand: a page of paint shows the one that is asked for.
import { live, main, signal } from "../shared/workbench.js";
import { canTurn, hand } from "./hand.js";

const at = (id) => document.getElementById(id);
const place = at("in-hand"), canvas = at("hand"), says = at("hand-says"), button = at("to-hand");
const say = (text) => ((says.textContent = text), (says.hidden = !text));
let held = null, open = false, seen = "";
const upto = () => (live.state.view.looks === "upto" ? live.state.view.facing : "");

if (!canTurn()) {
  button.disabled = true;
  button.title = "This browser has no 3D; the four views remain";
}

async function show(on) {
  open = on;
  at("picture").hidden = on;
  place.hidden = !on;
  button.setAttribute("aria-pressed", String(on));
  if (!on) return;
  say("Taking it in the hand …");
  try {
    held ??= await hand({ canvas, address: place.dataset.address, say });
  } catch {
    return say("It cannot be shown in 3D here; the four views remain.");
  }
  lamp();
  await live.settled(); // a figure that was just typed is on it
  await drawn();
}

// Drawn anew; what glows can be looked at in the dark.
async function drawn() {
  seen = upto();
  const shown = await held?.show(seen), night = at("in-the-dark");
  if (!shown) return;
  night.hidden = !shown.glows;
  held.dark(shown.glows && night.getAttribute("aria-pressed") === "true");
}

const lamp = () => held?.lamp(Number(at("lamp-round").value), Number(at("lamp-height").value));

button.addEventListener("click", () => show(!open), { signal });
for (const id of ["lamp-round", "lamp-height"]) at(id).addEventListener("input", lamp, { signal });
live.addEventListener("saved", () => open && drawn(), { signal });
live.addEventListener("state", () => open && held && upto() !== seen && drawn(), { signal });
at("in-the-dark").addEventListener("click", ({ target }) => {
  const isDark = target.getAttribute("aria-pressed") !== "true";
  target.setAttribute("aria-pressed", String(isDark));
  held?.dark(isDark);
}, { signal });

// A layer that was just put on is the one whose figures are shown.
const keys = () => (live.state.view.layers ?? []).map((layer) => layer.key);
let before = keys();
live.addEventListener("state", () => {
  const now = keys(), added = now.filter((key) => !before.includes(key));
  const one = added.length === 1 && now.length === before.length + 1;
  before = now;
  if (!one || !at("chosen")) return;
  live.facing = added[0];
  live.look();
}, { signal });
