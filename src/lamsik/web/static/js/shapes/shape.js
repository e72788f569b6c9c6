// The Shapes bench's own controls: tabs, points, switches, segments' materials, scaling with hardware chosen anew.
import { tabs } from "../shared/tabs.js";
import { length } from "../shared/units.js";
import { live, main, signal } from "../shared/workbench.js";

tabs(main.querySelector('[role="tablist"]'));

const at = (id) => document.getElementById(id);

// What is hung on, and where it usually sits.
function suggestSeat() {
  const option = at("f-item").selectedOptions[0];
  if (!option) return;
  const { kind, seats, hangs } = option.dataset;
  const taken = live.state.document.hardware.filter((row) => row.kind === kind).map((row) => row.seat);
  at("f-seat").value = seats.split(" ").find((seat, n, all) => !taken.includes(seat) || n === all.length - 1);
  at("f-seat").disabled = hangs !== undefined;
}
at("f-item").addEventListener("change", suggestSeat, { signal });
at("add-part").addEventListener("click", () => live.edit({ do: "hang", code: at("f-item").value, seat: at("f-seat").value }), { signal });
at("add-lip").addEventListener("click", () => live.edit({ do: "lip", code: at("f-lip").value }), { signal });
suggestSeat();

at("add-point").addEventListener("click", () => live.edit({ do: "add_point", line: at("point-line").value, x_mm: live.state.view.station_mm }), { signal });

main.addEventListener("change", ({ target }) => {
  if (target.dataset.switch) live.edit({ ...JSON.parse(target.dataset.switch), on: target.checked });
  if ("segment" in target.dataset) live.edit({ do: "segment_material", key: target.dataset.key, name: target.value });
}, { signal });

// A segment's choice is shown once its row is bound.
function showSegments() {
  for (const select of main.querySelectorAll("select[data-segment]")) select.value = select.dataset.value ?? "";
}
live.addEventListener("state", showSegments, { signal });

at("resize-form").addEventListener("submit", async (event) => {
  event.preventDefault();
  await live.edit({ do: "resize", by: at("resize-by").value, text: at("resize-text").value });
}, { signal });

// The station and the point in focus, typed.
const showStation = () => document.activeElement !== at("station-at") && (at("station-at").value = live.state.view.station);
at("station-at").addEventListener("change", ({ target }) => {
  live.station = target.value;
  live.look();
}, { signal });
live.addEventListener("failed", () => (live.station = live.state.view.station_mm), { signal }); // a place that cannot be is not asked for again
live.addEventListener("state", showStation, { signal });

let point = null;

function showPoint() {
  const handle = point && document.querySelector(`.handle[data-path="${point}"]`);
  at("point-form").hidden = !handle;
  if (!handle || at("point-form").contains(document.activeElement)) return;
  at("point-name").textContent = handle.getAttribute("aria-label");
  at("point-what").textContent = point.startsWith("point.half_width") ? "half-width" : "over the axis";
  at("point-x").value = length(Number(handle.dataset.x));
  at("point-value").value = length(Number(handle.getAttribute("aria-valuenow")));
}
at("picture").addEventListener("focusin", ({ target }) => {
  point = target.dataset.path?.startsWith("point.") ? target.dataset.path : null;
  showPoint();
}, { signal });
live.addEventListener("state", showPoint, { signal });
at("point-form").addEventListener("submit", (event) => {
  event.preventDefault();
  const [, line, index] = point.split(".");
  live.edit({ do: "point", line, index: Number(index), x_text: at("point-x").value, value_text: at("point-value").value });
}, { signal });

// What came back with a scaled body: parts whose size is asked for anew.
let rows = [];

live.addEventListener("state", () => {
  rows = live.state.anew ?? [];
  delete live.state.anew;
  if (!rows.length) return;
  at("anew-rows").replaceChildren(...rows.map(row));
  at("anew").showModal();
}, { signal });

function row(part, index) {
  const item = document.createElement("li"), select = document.createElement("select"), name = document.createElement("label");
  item.className = "d-grid cols-2 gap-2 align-items-center py-1";
  select.className = "form-select";
  name.textContent = part.name;
  name.htmlFor = select.id = `anew-${index}`;
  for (const option of part.options) select.add(new Option(option.name, option.code, option.near, option.near));
  item.append(name, select);
  return item;
}

at("anew-keep").addEventListener("click", () => at("anew").close(), { signal });
at("anew-take").addEventListener("click", () => {
  at("anew").close();
  rows.forEach((part, index) => {
    const code = at(`anew-${index}`).value;
    if (code && code !== part.now) live.edit({ ...part.edit, code });
  });
}, { signal });

showSegments();
showStation();
live.look();
