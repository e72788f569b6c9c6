// A field to choose from that shows the first of many: what is typed finds the rest in the shop. On a select the typing
// has a box of its own; an input with a list is typed into as it is. Data: `find`, where to ask; `as`, a value with {} for the key.
import { get } from "./post.js";

let asking = new AbortController();

async function found(url, text) {
  asking.abort();
  asking = new AbortController();
  const answer = await get(`${url}?q=${encodeURIComponent(text)}`, { signal: asking.signal });
  return answer.ok ? answer.body : null;
}

const option = (value, words, chosen = false) => new Option(words, value, chosen, chosen);

export function finder(field) {
  const controller = new AbortController(), { signal } = controller;
  const { find, as = "{}" } = field.dataset;
  const select = field instanceof HTMLSelectElement;
  const box = select ? Object.assign(document.createElement("input"), { type: "search", className: "form-control w-8", placeholder: "Find…" }) : field;
  if (select) {
    box.setAttribute("aria-label", `Find another: ${field.labels[0]?.textContent.trim() ?? field.getAttribute("aria-label")}`);
    box.maxLength = 100;
    field.before(box);
  }
  box.addEventListener("keydown", (event) => select && event.key === "Enter" && event.preventDefault(), { signal });
  box.addEventListener("input", async () => {
    const rows = await found(find, box.value);
    if (!rows) return;
    const fresh = rows.map(({ key, words }) => option(as.replace("{}", key), words));
    if (!select) return field.list.replaceChildren(...fresh);
    const kept = [...field.options].filter((row) => row.defaultSelected || row.selected || row.value === "");
    field.replaceChildren(...kept, ...fresh.filter((row) => !kept.some((one) => one.value === row.value)));
  }, { signal });
  return { get value() { return field.value; }, dispose: () => controller.abort() };
}

for (const field of document.querySelectorAll("[data-find]")) finder(field);
