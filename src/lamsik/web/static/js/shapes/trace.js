// Tracing a photo: marks on the picture, the outline found by the shop, points corrected by hand.
import { post, tell } from "../shared/post.js";
import { handles } from "../shared/handles.js";

const SVG = "http://www.w3.org/2000/svg";
const at = (id) => document.getElementById(id);
const picture = at("picture"), wide = Number(picture.dataset.width), high = Number(picture.dataset.height);
const { signal } = new AbortController();
const url = location.pathname.replace(/\/$/, "");

// Everything in picture pixels; `points` are the corrected outline once it is traced.
const marks = {
  ruler: [[wide * 0.25, high * 0.9], [wide * 0.75, high * 0.9]],
  sheet: [[wide * 0.08, high * 0.08], [wide * 0.92, high * 0.08], [wide * 0.92, high * 0.92], [wide * 0.08, high * 0.92]],
  nose: [wide * 0.25, high * 0.5], tail: [wide * 0.75, high * 0.5], on: [wide * 0.5, high * 0.5],
};
const begun = JSON.parse(at("begun")?.textContent ?? "null");
if (begun) {
  for (const name of Object.keys(marks)) marks[name] = begun[name] ?? marks[name];
  document.querySelector(`[name=by][value=${begun.by === "sheet" ? "sheet" : "ruler"}]`).checked = true;
  at("ruler-mm").value = begun.ruler_mm ?? at("ruler-mm").value;
  at("sheet-width").value = begun.sheet_width ?? at("sheet-width").value;
  at("sheet-height").value = begun.sheet_height ?? at("sheet-height").value;
  at("flip").checked = Boolean(begun.flip);
}
let points = [], past = [], view = [0, 0, wide, high];
const by = () => document.querySelector("[name=by]:checked").value;

function element(tag, attributes, ...children) {
  const node = document.createElementNS(SVG, tag);
  for (const [name, value] of Object.entries(attributes)) node.setAttribute(name, value);
  node.append(...children);
  return node;
}

const svg = element("svg", { role: "group", "aria-label": "Photo with marks" });
const photo = element("image", { href: picture.dataset.url, width: wide, height: high });
const layer = element("g", {});
svg.append(photo, layer);
picture.append(svg);

const pixel = () => view[2] / Math.max(picture.clientWidth, 300);

function mark(path, [x, y], says, kind) {
  const r = pixel(), cross = `M${x - 15 * r} ${y}H${x - 4 * r}M${x + 4 * r} ${y}H${x + 15 * r}M${x} ${y - 15 * r}V${y - 4 * r}M${x} ${y + 4 * r}V${y + 15 * r}`;
  const size = kind === "point" ? 4.5 : 9;
  return element("g", {
    class: `handle mark-${kind}`, tabindex: kind === "point" && path !== "point.0" ? -1 : 0, role: "slider", "aria-label": says, "aria-valuenow": y.toFixed(1), "aria-valuemin": 0, "aria-valuemax": high,
    "aria-valuetext": `${x.toFixed(0)}, ${y.toFixed(0)} pixels`, "data-path": path, "data-axis": "xy", "data-factor": 1, "data-offset": 0, "data-x": x.toFixed(2),
  }, element("circle", { cx: x, cy: y, r: 18 * r, fill: "transparent" }), ...(kind === "point" ? [] : [element("path", { d: cross, "stroke-width": 2 * r })]),
    element("circle", { cx: x, cy: y, r: size * r, "stroke-width": 2.5 * r, class: "ring" }));
}

function draw() {
  const r = pixel(), rows = [], focused = grips.focused();
  const path = (list, close) => `M${list.map((p) => p.join(" ")).join("L")}${close ? "Z" : ""}`;
  if (points.length) rows.push(element("path", { d: path(points, true), class: "traced", "stroke-width": 2.5 * r, "data-line": "outline" }));
  const scale = by() === "sheet" ? marks.sheet : marks.ruler;
  rows.push(element("path", { d: path(scale, by() === "sheet"), class: "scale-line", "stroke-width": 2 * r }));
  rows.push(element("path", { d: path([marks.nose, marks.tail]), class: "axis-line", "stroke-width": 2 * r, "stroke-dasharray": `${8 * r} ${6 * r}` }));
  scale.forEach((p, i) => rows.push(mark(`${by()}.${i}`, p, by() === "sheet" ? `Sheet corner ${i + 1}` : `Ruler mark ${i + 1}`, "scale")));
  rows.push(mark("nose", marks.nose, "Nose", "axis"), mark("tail", marks.tail, "Tail", "axis"), mark("on", marks.on, "On the thing", "on"));
  points.forEach((p, i) => rows.push(mark(`point.${i}`, p, `Outline point ${i + 1}`, "point")));
  layer.replaceChildren(...rows);
  svg.setAttribute("viewBox", view.join(" "));
  grips.follow();
  grips.refocus(focused);
}

// Corrections can be taken back one by one; a drag counts once.
let dragging = false;
function remember() {
  past = [...past.slice(-99), structuredClone(points)];
  at("back").disabled = false;
}
function takeBack() {
  if (!past.length) return;
  points = past.pop();
  at("back").disabled = !past.length;
  draw();
}

function set(path, y, mode, x) {
  const [name, index] = path.split(".");
  if (name === "point" && !dragging) remember();
  dragging = mode === "drag";
  const list = name === "point" ? points : Array.isArray(marks[name][0]) ? marks[name] : null;
  if (list) list[Number(index)] = [x, y];
  else marks[name] = [x, y];
  draw();
}

const remove = (path) => {
  if (!path.startsWith("point.") || points.length <= 8) return;
  remember();
  points.splice(Number(path.split(".")[1]), 1);
  draw();
};
const grips = handles({ picture, set, remove, steps: [1, 10, 0.2] });

// Wheel and drag on the ground look closer; marks keep their size.
const spot = (event) => new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM().inverse());
picture.addEventListener("wheel", (event) => {
  event.preventDefault();
  const p = spot(event), factor = event.deltaY < 0 ? 0.8 : 1.25, size = Math.min(Math.max(view[2] * factor, wide / 20), wide);
  const ratio = size / view[2];
  view = [p.x - (p.x - view[0]) * ratio, p.y - (p.y - view[1]) * ratio, size, (size * high) / wide];
  draw();
}, { passive: false, signal });
let held = null;
svg.addEventListener("pointerdown", (event) => (held = event.target.closest(".handle") ? null : spot(event)), { signal });
svg.addEventListener("pointermove", (event) => {
  if (!held || !event.buttons || view[2] >= wide) return;
  const p = spot(event);
  view = [view[0] + held.x - p.x, view[1] + held.y - p.y, view[2], view[3]];
  draw();
}, { signal });
addEventListener("pointerup", () => (held = null), { signal });
at("whole").addEventListener("click", () => ((view = [0, 0, wide, high]), draw()), { signal });

svg.addEventListener("dblclick", (event) => {
  if (!points.length) return;
  const p = spot(event), far = points.map((a, i) => away(p, a, points[(i + 1) % points.length]));
  remember();
  points.splice(far.indexOf(Math.min(...far)) + 1, 0, [p.x, p.y]);
  draw();
}, { signal });

function away(p, [ax, ay], [bx, by2]) {
  const dx = bx - ax, dy = by2 - ay, t = Math.min(Math.max(((p.x - ax) * dx + (p.y - ay) * dy) / (dx * dx + dy * dy || 1), 0), 1);
  return Math.hypot(p.x - ax - t * dx, p.y - ay - t * dy);
}

const sent = () => ({
  ...marks, by: by(), ruler_mm: at("ruler-mm").value, sheet_width: at("sheet-width").value, sheet_height: at("sheet-height").value, flip: at("flip").checked,
});

function showScale() {
  at("ruler-fields").hidden = by() === "sheet";
  at("sheet-fields").hidden = by() !== "sheet";
  at("verdict").textContent = by() === "sheet" ? "Put the four blue marks on the corners of the sheet, clockwise from its top left, and type its size." : "Put the two blue marks on a ruler in the picture and type how far apart they are.";
  draw();
}
for (const input of document.querySelectorAll("[name=by]")) input.addEventListener("change", showScale, { signal });
at("back").addEventListener("click", takeBack, { signal });
document.addEventListener("keydown", (event) => {
  if (!(event.ctrlKey || event.metaKey) || event.key !== "z" || event.target.closest("input")) return;
  event.preventDefault();
  takeBack();
}, { signal });

at("marks-form").addEventListener("submit", async (event) => {
  event.preventDefault();
  const button = at("trace"), words = button.textContent;
  button.textContent = "Tracing…";
  button.setAttribute("aria-busy", "true");
  const answer = await post(`${url}/outline`, sent());
  button.textContent = words;
  button.removeAttribute("aria-busy");
  tell(at("trace-problem"), answer.ok ? "" : answer.message);
  if (!answer.ok) return;
  points = answer.body.points;
  at("verdict").textContent = `Traced: ${answer.body.length} long, ${answer.body.depth} deep. Correct it where it is wrong, then keep it.`;
  at("traced").textContent = `${answer.body.length} × ${answer.body.depth}; one pixel is ${answer.body.pixel}. ${answer.body.drawn ? "Drawn as a line: its middle counts." : "Its edge counts."}`;
  at("body-form").hidden = false;
  button.classList.replace("btn-primary", "btn-outline-secondary"); // from here on the one thing to do is to keep it
  draw();
}, { signal });

at("body-form").addEventListener("submit", async (event) => {
  event.preventDefault();
  const body = new FormData(event.target);
  body.append("marks", JSON.stringify(sent()));
  body.append("points", JSON.stringify(points));
  const answer = await post(`${url}/body`, body);
  if (!answer.ok) return tell(at("body-problem"), answer.message);
  location.assign(answer.body.url);
}, { signal });

addEventListener("resize", draw, { signal });
showScale();
