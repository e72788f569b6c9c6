// One document on screen, on whatever bench: binds the state, sends edits, keeps undo and saving in view.
import { bind } from "./bind.js";
import { patch } from "./svg.js";
import { handles } from "./handles.js";
import { Live } from "./live.js";

const main = document.getElementById("main");
const picture = document.getElementById("picture");
const { signal } = new AbortController();
const live = new Live({ state: JSON.parse(document.getElementById("state").textContent) });
const set = (path, value, mode, x) => {
  live.follow(live.state.view.g);
  const [kind, name, index] = path.split(".");
  if (path === "view.station") live.station = value;
  const edit = {
    view: () => null,
    point: () => ({ do: "point", line: name, index: Number(index), x_mm: x, value_mm: value }),
    exponent: () => ({ do: "exponent", half: name, x_mm: live.state.view.station_mm, reach_mm: value }),
  }[kind] ?? (() => ({ do: "set", path, value: Math.round(value * 100) / 100 }));
  return live.edit(edit(), { mode });
};
const remove = (path) => path.startsWith("point.") && live.edit({ do: "drop_point", line: path.split(".")[1], index: Number(path.split(".")[2]) });
picture.addEventListener("pointerdown", () => (live.trail = []), { signal });
const held = handles({ picture, set, remove, back: () => live.look(), underway: () => live.busy });

function render() {
  const { view, errors } = live.state;
  const focused = held.focused();
  main.classList.toggle("later", Boolean(view.late));
  bind(main, { ...view, before: live.kept?.view.figures ?? view.figures });
  held.loosen();
  patch(picture, [view.picture]);
  held.follow();
  held.refocus(focused);
  for (const input of main.querySelectorAll("input[data-path]")) showField(input, view.fields, errors);
  for (const select of main.querySelectorAll("select[data-path]")) showChoice(select, view.fields[select.dataset.path] ?? "");
  for (const select of main.querySelectorAll("select[data-selected]")) showChoice(select, view.selected[select.dataset.selected]);
  for (const select of main.querySelectorAll("select[data-selected-value]")) showChoice(select, view[select.dataset.selectedValue]);
  for (const box of main.querySelectorAll("[data-checked]")) box.checked = Boolean(view[box.dataset.checked]);
  for (const button of main.querySelectorAll("[data-pressed]")) {
    const [name, value] = button.dataset.pressed.split(":");
    button.setAttribute("aria-pressed", String(view.selected[name] === value));
  }
  for (const button of main.querySelectorAll("[data-looks]")) {
    button.setAttribute("aria-pressed", String(button.dataset.looks === view.looks));
    button.disabled = (button.dataset.looks === "surface" && !view.can_float) || (button.dataset.looks === "held" && !view.can_hold);
  }
  for (const button of main.querySelectorAll("[data-facing]")) button.setAttribute("aria-pressed", String(button.dataset.facing === view.facing));
  showLoose(errors);
  showAsked(errors);
}

function showField(input, fields, errors) {
  const refused = errors.find((error) => error.field === input.dataset.path);
  note(input, refused?.message);
  if (refused || live.isPending(input.dataset.path) || (input === document.activeElement && input.dataset.dirty)) return;
  const text = fields[input.dataset.path] ?? "";
  if (input.value !== text) input.value = text;
}

function note(input, message) {
  const id = `${input.id || input.dataset.path}-problem`;
  let place = document.getElementById(id);
  if (message && !place) {
    place = Object.assign(document.createElement("p"), { id, className: "problem", role: "alert" });
    input.insertAdjacentElement("afterend", place);
  }
  if (place) message ? (place.textContent = message) : place.remove();
  message ? input.setAttribute("aria-invalid", "true") : input.removeAttribute("aria-invalid");
  message ? input.setAttribute("aria-describedby", id) : input.removeAttribute("aria-describedby");
}

function showChoice(select, value) {
  if (![...select.options].some((option) => option.value === value)) select.add(new Option(value, value));
  select.value = value;
}

// What has no field in sight (none on this page, on another tab, folded away) is said over the tabs, with its name.
function showLoose(errors) {
  const shown = new Set([...main.querySelectorAll("input[data-path]")].filter((input) => input.offsetParent).map((input) => input.dataset.path));
  const loose = errors.find((error) => !shown.has(error.field));
  const place = document.getElementById("edit-problem");
  if (!place) return;
  place.hidden = !loose;
  place.textContent = loose?.says ?? loose?.message ?? "";
}

// What is locked changes only after a confirmation that names it.
function showAsked(errors) {
  const dialog = document.getElementById("edit-ask"), asked = errors.find((error) => error.ask);
  if (!dialog || !asked || dialog.open || !live.state.view.settled) return; // a drag is asked about when it ends
  const go = dialog.querySelector("[data-edit]");
  dialog.firstElementChild.textContent = asked.asks;
  go.textContent = asked.ask;
  go.dataset.edit = JSON.stringify(asked.edit);
  dialog.addEventListener("close", () => live.look(), { once: true }); // what is left stands as it was
  dialog.showModal();
}

function say(text, wrong = false) {
  const saved = document.getElementById("saved");
  saved.textContent = text;
  for (const look of ["text-brick", "fw-semibold"]) saved.classList.toggle(look, wrong);
}

main.addEventListener("input", ({ target }) => target.dataset.path && (target.dataset.dirty = "1"), { signal });
main.addEventListener("change", ({ target }) => {
  if (target.dataset.path) {
    delete target.dataset.dirty;
    live.edit({ do: "set", path: target.dataset.path, text: target.value });
  }
  if (target.dataset.select && target.value !== "") live.edit(JSON.parse(target.dataset.select.replace('"$"', JSON.stringify(target.value)).replace('"$n"', Number(target.value))));
  if ("once" in target.dataset) target.value = "";
  if (target.dataset.flag) live.edit({ do: "flag", path: target.dataset.flag, on: target.checked });
}, { signal });

main.addEventListener("click", ({ target }) => {
  const button = target.closest("button");
  if (!button) return;
  if (button.dataset.edit) live.edit(JSON.parse(button.dataset.edit));
  if (button.dataset.looks) {
    live.looks = button.dataset.looks;
    live.look();
  }
  if (button.dataset.facing) {
    live.facing = button.dataset.facing;
    live.look();
  }
  if (button.id === "undo" || button.id === "redo") live.step(button.id);
}, { signal });

document.addEventListener("keydown", (event) => {
  if (!(event.ctrlKey || event.metaKey) || event.target.closest("input[data-dirty]")) return;
  const way = event.key === "z" && !event.shiftKey ? "undo" : event.key === "y" || (event.key === "Z" && event.shiftKey) ? "redo" : null;
  if (!way) return;
  event.preventDefault();
  live.step(way);
}, { signal });

live.addEventListener("state", render);
live.addEventListener("pending", () => say(live.trying ? "Trying" : "Saving…"));
live.addEventListener("stepping", ({ detail }) => say(detail === "undo" ? "Undoing…" : "Redoing…"));
live.addEventListener("shown", () => live.trying && say("Trying, not saved"));
live.addEventListener("saved", () => say("Saved"));
live.addEventListener("failed", ({ detail }) => say(`Not saved. ${detail}`, true));
addEventListener("beforeunload", (event) => live.queue.length && event.preventDefault());

// Who types a figure and leaves at once takes it along: the next page is opened when this one is saved.
document.addEventListener("click", async (event) => {
  const link = event.target.closest("a[href]"), { button, ctrlKey, metaKey, shiftKey, altKey } = event;
  if (!live.busy || !link || event.defaultPrevented || button || ctrlKey || metaKey || shiftKey || altKey) return;
  if (link.target || link.hasAttribute("download") || link.origin !== location.origin || (link.hash && link.pathname === location.pathname)) return;
  event.preventDefault();
  await live.settled();
  location.assign(link.href);
}, { signal });
document.addEventListener("submit", async (event) => {
  if (!live.busy || event.defaultPrevented || event.target.method !== "post") return;
  event.preventDefault();
  await live.settled();
  event.target.requestSubmit(event.submitter);
}, { signal });

render();

export { live, main, signal };
