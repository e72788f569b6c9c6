// The connected scale: its reading in large, taken into the field at hand when it lies still, with a tone and a tick.
// Fields to be filled carry data-weigh; the next visible empty one after the field in focus is the one at hand.
import { post } from "../shared/post.js";

const board = document.getElementById("live-scale");
const { signal } = new AbortController();
let taken = 0, last = null, sound = null;

const fields = () => [...document.querySelectorAll("input[data-weigh]")].filter((input) => input.offsetParent);
const atHand = () => {
  const all = fields(), focused = all.indexOf(document.activeElement);
  return focused >= 0 ? all[focused] : all.find((input) => !input.value.trim());
};

function show(state) {
  last = state;
  const value = document.getElementById("scale-value"), says = document.getElementById("scale-says");
  value.textContent = state.value_g === null ? "–" : `${state.value_g.toFixed(2).replace("-", "−")} g`;
  if (says.textContent !== state.says) says.textContent = state.says;
  board.dataset.state = state.state;
  board.classList.toggle("stable", state.stable);
  document.getElementById("scale-tared").hidden = !state.tare_g;
  light();
  if (state.stable && state.settled > taken && document.getElementById("scale-auto").checked) take(state);
}

// Something has to lie on it, and only a field that is still empty is filled by itself; one that is poured to a mark
// (data-from) waits until the mark is near: a rest in between is not taken.
function take(state, asked = false) {
  const input = atHand();
  if (!input || (!asked && (input.value.trim() || Math.abs(state.value_g) < Number(board.dataset.least) || state.value_g < Number(input.dataset.from ?? -Infinity)))) return;
  taken = state.settled;
  input.value = `${state.value_g.toFixed(2)} g`;
  input.dispatchEvent(new Event("input", { bubbles: true }));
  input.classList.add("taken");
  setTimeout(() => input.classList.remove("taken"), 1600);
  document.getElementById("scale-said").textContent = `Taken: ${input.value} for ${input.labels[0]?.textContent ?? input.getAttribute("aria-label")}.`;
  tone();
  const mine = fields().filter((other) => other.form === input.form);
  const next = mine.slice(mine.indexOf(input) + 1).find((other) => !other.value.trim());
  (next ?? input.form?.querySelector("[data-weigh-done]"))?.focus();
}

// A short tone, as a bench scale gives; browsers allow it once the page was touched.
function tone() {
  try {
    sound ??= new AudioContext();
    const voice = sound.createOscillator(), loud = sound.createGain();
    voice.frequency.value = 880;
    loud.gain.setValueAtTime(0.12, sound.currentTime);
    loud.gain.exponentialRampToValueAtTime(0.001, sound.currentTime + 0.25);
    voice.connect(loud).connect(sound.destination);
    voice.start();
    voice.stop(sound.currentTime + 0.26);
  } catch {
    // without sound the tick has to do
  }
}

// Light the way of weighing that belongs to the field at hand.
function light() {
  const way = atHand()?.dataset.way;
  for (const scene of document.querySelectorAll("[data-way].way")) scene.classList.toggle("here", scene.getAttribute("data-way") === way);
}

async function ask() {
  if (document.hidden) return;
  try {
    const response = await fetch("/scale/live", { headers: { Accept: "application/json" }, signal });
    if (response.ok) show(await response.json());
  } catch {
    show({ ...last, state: "gone", says: "The shop does not answer; is it still running?", value_g: null, stable: false });
  }
}

if (board) {
  document.addEventListener("focusin", light, { signal });
  document.getElementById("scale-take")?.addEventListener("click", () => last?.stable && take(last, true), { signal });
  document.getElementById("scale-tare")?.addEventListener("click", async () => {
    const answer = await post("/scale/tare", { off: Boolean(last?.tare_g) });
    if (answer.ok) show(answer.body);
    else document.getElementById("scale-said").textContent = answer.message;
  }, { signal });
  light();
  if (board.dataset.connected) {
    const turn = async () => {
      await ask();
      setTimeout(turn, 200);
    };
    turn();
  }
}
