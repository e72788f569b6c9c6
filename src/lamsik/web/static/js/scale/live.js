// The connected scale: its reading in large, taken into the field at hand once it has changed and lies still, with a tone and a tick.
// Fields to be filled carry data-weigh; the one in focus is at hand, else the first that is empty or was read and not kept.
// A zero belongs to this page alone; it and the reading just kept go on to the page that answers a form, once, and to no other.
import { again, get } from "../shared/post.js";
import { tone } from "../shared/tone.js";
import { mass } from "../shared/units.js";

const board = document.getElementById("live-scale");
const { signal } = new AbortController();
const CARRIED = "lamsik-scale", CARRIED_MS = 60000;
const part = (name) => document.getElementById(`scale-${name}`);

let last = null; // the newest state
// Where the scale last lay still [g], to begin with as the page was made: only what differs from it was put on since.
let rest = board?.dataset.rest ? Number(board.dataset.rest) : null;
let zero = null; // { gross, what, at } of this page
let kept = null; // { gross, label }: kept already, until the pan changes
let hand = null, zeroing = false;

const fields = () => [...document.querySelectorAll("input[data-weigh]")].filter((input) => input.offsetParent);
const atHand = () => {
  const all = fields(), focused = all.indexOf(document.activeElement);
  return focused >= 0 ? all[focused] : all.find((input) => !input.value.trim() || grows(input) || waits(input));
};
// What was read for a form of its own and is not kept yet stays at hand: the next reading is not the next step's.
const waits = (input) => input.dataset.read && fields().filter((other) => other.form === input.form).length === 1;
// A pour to a mark goes on after its first reading; anything else is read once.
const grows = (input) => Boolean(input.dataset.read && input.dataset.from);
const change = () => Number(board.dataset.change);
const net = () => (last?.value_g ?? null) === null ? null : last.value_g - (zero?.gross ?? 0);
const name = (input) => input.labels[0]?.textContent ?? input.getAttribute("aria-label");
const say = (text) => { part("said").textContent = text; };

function show(state) {
  last = state;
  const value = net();
  part("value").textContent = value === null ? "–" : mass(value);
  if (part("says").textContent !== state.says) part("says").textContent = state.says;
  const isLost = ["gone", "silent", "garbled"].includes(state.state);
  board.dataset.state = state.state;
  board.classList.toggle("lost", isLost);
  part("where").hidden = !isLost;
  board.classList.toggle("stable", state.stable);
  showZero();
  guide();
  document.dispatchEvent(new CustomEvent("weighed", { detail: { net: zero || !atHand()?.dataset.zeroed ? value : null } }));
  if (state.stable && zeroing) return setZero();
  if (value !== null && Math.abs(value) < Number(board.dataset.least)) [rest, kept] = [zero?.gross ?? 0, null]; // emptied, however short
  if (state.stable) settle(state.value_g);
}

// A new rest: what was put on since the last one may be taken. The first rest of a page is only where it starts from.
function settle(gross) {
  const first = rest === null, moved = first || Math.abs(gross - rest) > change();
  if (!moved) return;
  rest = gross;
  if (first) return;
  if (kept && Math.abs(gross - kept.gross) > change()) kept = null;
  if (part("auto").checked) take();
}

function refusal(input) {
  if (input.dataset.zeroed && !zero) return `Put ${input.dataset.zeroed} on and press Zero first.`;
  if (!last?.stable) return "Wait until it lies still.";
  if (kept && Math.abs(last.value_g - kept.gross) <= change()) return `This reading is kept already for ${kept.label}: take it off, or change what lies on the scale.`;
  return "";
}

// Only an empty field is filled by itself, or one whose own reading went on: a pour that was not at its mark yet.
function take(asked = false) {
  const input = atHand();
  if (!input) return;
  const why = refusal(input), value = net();
  if (why) return asked ? say(why) : undefined;
  const typed = input.value.trim() && !grows(input);
  if (!asked && (typed || Math.abs(value) < Number(board.dataset.least) || value < Number(input.dataset.from ?? -Infinity))) return;
  const again = Boolean(input.dataset.read);
  input.value = mass(value).replace("−", "-");
  input.dataset.read = String(last.value_g);
  input.dispatchEvent(new Event("input", { bubbles: true }));
  book(input.form);
  input.classList.add("taken");
  setTimeout(() => input.classList.remove("taken"), 1600);
  say(`Taken: ${mass(value)} for ${name(input)}.`);
  if (again && !asked) return;
  tone({ hertz: 880, loud: 0.12, last: 0.25 });
  const mine = fields().filter((other) => other.form === input.form);
  const next = mine.slice(mine.indexOf(input) + 1).find((other) => !other.value.trim());
  const done = input.form?.querySelector("[data-weigh-done]");
  if (next) [kept, hand] = [{ gross: last.value_g, label: name(input) }, null];
  (next ?? done)?.focus();
}

// What the connected scale read is booked on that scale.
function book(form) {
  const select = form?.elements.instrument, mine = board.dataset.instrument;
  if (!select || !mine || ![...select.options].some((option) => option.value === mine)) return;
  select.dataset.before ??= select.value;
  select.value = mine;
}

function typedOver({ target, isTrusted }) {
  if (!isTrusted || !target.matches?.("input[data-weigh]") || !target.dataset.read) return;
  delete target.dataset.read;
  const select = target.form?.elements.instrument;
  if (select?.dataset.before) select.value = select.dataset.before;
}

function showZero() {
  part("zero").hidden = part("whole").hidden = !zero;
  if (!zero) return;
  const below = last?.stable && last.value_g < zero.gross - change();
  part("zero").textContent = below
    ? `less ${mass(zero.gross)}, ${zero.what}: more than lies on it now. Put it back, or zero anew.`
    : `less ${mass(zero.gross)}, ${zero.what}`;
}

// The one thing to do now, where a field is weighed into a cup.
function guide() {
  const input = atHand(), at = part("guide"), cup = Boolean(input?.dataset.zeroed);
  at.hidden = !cup;
  part("tare").classList.toggle("btn-primary", cup && !zero);
  part("tare").classList.toggle("btn-outline-secondary", !cup || Boolean(zero));
  if (!cup) return;
  const text = !zero ? `Put ${input.dataset.zeroed} on the scale, then press Zero.` : input.value.trim() ? "At the mark: keep it." : `Pour ${input.dataset.part} to ${input.dataset.mark}.`;
  if (at.textContent !== text) at.textContent = text;
}

function setZero() {
  zeroing = !last?.stable;
  if (zeroing) return say("Zeroed as soon as it lies still.");
  zero = { gross: last.value_g, what: atHand()?.dataset.zeroed?.replace("empty ", "") ?? "what lay on it" };
  [rest, kept] = [last.value_g, null];
  say(`Zeroed: ${mass(last.value_g)} count as nothing on this page.`);
  show(last);
}

// Light the way of weighing that belongs to the field at hand; a reading that lay there before is not its own.
function light() {
  const input = atHand();
  if (input !== hand && hand && last?.stable) rest = last.value_g;
  hand = input;
  for (const scene of document.querySelectorAll("[data-way].way")) scene.classList.toggle("here", scene.getAttribute("data-way") === input?.dataset.way);
}

// The page that answers the form goes on from here: what is in the cup counts as nothing for the next part.
function carry({ target }) {
  const input = [...target.querySelectorAll("input[data-weigh]")].findLast((field) => field.dataset.read);
  const next = input?.dataset.zeroed ? { gross: Number(input.dataset.read), what: `the cup with ${input.dataset.part} in it` } : null;
  const used = input ? { gross: Number(input.dataset.read), label: name(input) } : null;
  sessionStorage.setItem(CARRIED, JSON.stringify({ page: board.dataset.page, at: Date.now(), zero: input?.dataset.zeroed ? next : null, before: zero, kept: used }));
}

function carried() {
  const text = sessionStorage.getItem(CARRIED);
  sessionStorage.removeItem(CARRIED);
  const left = text ? JSON.parse(text) : null;
  if (!left || left.page !== board.dataset.page || Date.now() - left.at > CARRIED_MS) return;
  zero = board.dataset.refused ? left.before : left.zero; // refused: the cup stands as it stood
  kept = board.dataset.refused ? null : left.kept;
  rest = kept?.gross ?? rest;
}

async function ask(asked) {
  const answer = await get("/scale/live", { signal: asked });
  if (answer.ok) return show(answer.body);
  if (answer.away) show({ ...last, state: "gone", says: answer.message, value_g: null, stable: false });
}

if (board) {
  carried();
  addEventListener("pageshow", ({ persisted }) => { if (persisted) [zero, kept, rest] = [null, null, null]; }, { signal });
  document.addEventListener("focusin", light, { signal });
  document.addEventListener("input", typedOver, { signal });
  document.addEventListener("submit", carry, { signal });
  part("take")?.addEventListener("click", () => take(true), { signal });
  part("tare")?.addEventListener("click", setZero, { signal });
  part("whole")?.addEventListener("click", () => {
    zero = null;
    say("The whole weight is shown again.");
    show(last);
  }, { signal });
  light();
  if (board.dataset.connected) again(ask, 200).begin();
}
