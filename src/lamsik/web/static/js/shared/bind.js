// Show values in the page by the attributes of its elements; the markup says what goes where.
//   data-text="a.b"          the value as text
//   data-show / data-hide    visible while the value is true / false
//   data-class="name:flag"   a class while the flag is true; name:!flag while it is not
//   data-grey="field"        disabled while the value is a text: the reason, which is its title too
//   data-attr="attr:field;…" attributes from fields
//   data-ticked="flag"       a box that is ticked while the flag is true
//   data-picture="field"     an SVG node value as a drawing
//   data-each="rows"         its <template> once for each row; rows keep their element by `key`
import { patch } from "./svg.js";

const value = (data, path) => path.split(".").reduce((here, name) => here?.[name], data);

export function bind(root, data) {
  show(root, data);
  if (root.dataset.each) return each(root, value(data, root.dataset.each));
  for (const child of root.children) bind(child, data);
}

// Rows and texts that did not change are left alone: a drag binds the page at every frame.
const last = new WeakMap();

function write(element, text) {
  if (element.textContent !== text) element.textContent = text;
}

function show(element, data) {
  const { text, show: shown, hide, class: classes, grey, attr, picture, ticked } = element.dataset;
  if (text) write(element, String(value(data, text) ?? ""));
  if (shown) element.hidden = !value(data, shown);
  if (hide) element.hidden = Boolean(value(data, hide));
  if (classes) for (const [name, flag] of pairs(classes)) element.classList.toggle(name, holds(data, flag));
  if (grey) greyed(element, value(data, grey) ?? "");
  if (attr) for (const [name, field] of pairs(attr)) element.setAttribute(name, value(data, field) ?? "");
  if (ticked) element.checked = Boolean(value(data, ticked));
  if (picture) patch(element, value(data, picture) ? [value(data, picture)] : []);
}

const holds = (data, flag) => (flag.startsWith("!") ? !value(data, flag.slice(1)) : Boolean(value(data, flag)));

function greyed(element, why) {
  element.dataset.title ??= element.title;
  element.disabled = Boolean(why);
  element.title = why || element.dataset.title;
}

const pairs = (text) => text.split(";").map((pair) => pair.split(":"));

function each(container, rows) {
  if (!rows || last.get(container) === rows) return; // what these data do not speak of stays as it is
  last.set(container, rows);
  const template = container.querySelector(":scope > template");
  const old = new Map([...container.children].filter((row) => row !== template).map((row) => [row.dataset.rowKey, row]));
  const kept = rows.map((data, index) => {
    const key = String(data.key ?? index);
    const row = old.get(key) ?? template.content.firstElementChild.cloneNode(true);
    row.dataset.rowKey = key;
    bind(row, data);
    old.delete(key);
    return row;
  });
  for (const gone of old.values()) gone.remove();
  kept.forEach((row, index) => {
    const there = container.children[index + 1];
    if (there !== row) container.insertBefore(row, there ?? null);
  });
}
