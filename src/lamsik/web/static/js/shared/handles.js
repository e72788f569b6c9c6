// Handles in a drawing: they follow the pointer at every frame, and the arrow keys nudge them.
// Each names the field it sets (data-path) and how its coordinate makes the value (axis, factor, offset).
// Page Down and Page Up go to the next and the last point of a line.
// A handle with axis "xy" moves both ways: its value goes with y, data-x is its place along the body.
// A handle with axis "turn" goes round the origin of its frame: its value is an angle, anticlockwise.

export function handles({ picture, set, remove = () => {}, back = () => {}, underway = () => false, steps = [0.5, 5, 0.1] }) {
  const controller = new AbortController(), { signal } = controller;
  let dragged = null, latest = null;

  const put = (path, value, mode, x) => {
    latest = { path, value, x };
    set(path, value, mode, x);
  };

  // Where a handle stands: while answers are under way where it was put last, not what an overtaken one draws.
  const standing = (handle) => (latest?.path === handle.dataset.path && underway() ? latest : { value: valueOf(handle), x: alongOf(handle) });

  const frameOf = (handle) => handle.parentNode.getScreenCTM();
  const valueOf = (handle) => Number(handle.getAttribute("aria-valuenow"));
  const alongOf = (handle) => Number(handle.dataset.x ?? 0);
  const find = (path) => picture.querySelector(`.handle[data-path="${CSS.escape(path)}"]`);

  const pointed = (handle, event) => new DOMPoint(event.clientX, event.clientY).matrixTransform(frameOf(handle).inverse());
  const angle = (at) => (-Math.atan2(at.y, at.x) * 180) / Math.PI;
  const wrapped = (degrees) => ((((degrees + 180) % 360) + 360) % 360) - 180;
  const across = (handle, at) => ({ x: at.x, turn: angle(at) })[handle.dataset.axis] ?? at.y;

  function follow() {
    const handle = dragged && find(dragged.path);
    if (!handle) return;
    const { axis, factor } = handle.dataset;
    const shift = (dragged.value - valueOf(handle)) / Number(factor);
    const along = axis === "xy" ? dragged.x - alongOf(handle) : 0;
    if (axis === "turn") handle.setAttribute("transform", `rotate(${-shift})`);
    else handle.setAttribute("transform", axis === "x" ? `translate(${shift} 0)` : `translate(${along} ${shift})`);
    handle.classList.add("held");
  }

  // What a drag did to its handle is no part of the drawing.
  function loosen() {
    for (const handle of picture.querySelectorAll(".handle.held")) {
      handle.classList.remove("held");
      handle.removeAttribute("transform");
    }
  }

  function move(event) {
    const handle = dragged && find(dragged.path);
    if (!handle) return;
    const at = pointed(handle, event);
    const value = dragged.from + (across(handle, at) - across(handle, dragged.start)) * Number(handle.dataset.factor);
    dragged.value = clamp(handle, handle.dataset.axis === "turn" ? wrapped(value) : value);
    dragged.x = dragged.fromX + at.x - dragged.start.x;
    dragged.moved = true;
    follow();
    put(dragged.path, dragged.value, "drag", dragged.x);
  }

  // The points of one line are one stop of Tab; the page keys go from point to point.
  function neighbour(handle, step) {
    const line = handle.dataset.path.replace(/[^.]*$/, "");
    const all = [...picture.querySelectorAll(`.handle[data-path^="${CSS.escape(line)}"]`)];
    return all[all.indexOf(handle) + step];
  }

  const clamp = (handle, value) => Math.min(Math.max(value, Number(handle.getAttribute("aria-valuemin"))), Number(handle.getAttribute("aria-valuemax")));

  picture.addEventListener("pointerdown", (event) => {
    const handle = event.target.closest?.(".handle");
    if (!handle) return;
    event.preventDefault();
    handle.focus();
    const from = valueOf(handle), x = alongOf(handle);
    dragged = { path: handle.dataset.path, start: pointed(handle, event), from, value: from, fromX: x, x };
    picture.setPointerCapture(event.pointerId);
  }, { signal });
  picture.addEventListener("pointermove", move, { signal });
  const drop = () => {
    if (!dragged) return;
    const { path, value, from, x, fromX, moved } = dragged;
    dragged = null;
    if (value !== from || x !== fromX) return put(path, value, "settled", x);
    loosen();
    if (moved) back(); // there and back again: what the drag showed in between gives way to what is kept
  };
  picture.addEventListener("pointerup", drop, { signal });
  picture.addEventListener("pointercancel", drop, { signal });

  picture.addEventListener("keydown", (event) => {
    const handle = event.target.closest?.(".handle");
    if (handle && (event.key === "Delete" || event.key === "Backspace")) {
      event.preventDefault();
      return remove(handle.dataset.path);
    }
    if (handle && event.key.startsWith("Page")) {
      event.preventDefault();
      return neighbour(handle, event.key === "PageDown" ? 1 : -1)?.focus();
    }
    const way = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[event.key];
    if (!handle || !way) return;
    event.preventDefault();
    const sideways = handle.dataset.axis === "xy" && event.key.match(/Left|Right/);
    const upwards = !sideways && handle.dataset.axis === "xy" && Number(handle.dataset.factor) > 0 ? -1 : 1;
    const step = way * upwards * (event.shiftKey ? steps[1] : event.altKey ? steps[2] : steps[0]);
    const from = standing(handle);
    const value = sideways ? from.value : clamp(handle, from.value + step);
    const x = from.x + (sideways ? step : 0);
    handle.setAttribute("aria-valuenow", value.toFixed(2));
    if (sideways) handle.dataset.x = x.toFixed(3);
    put(handle.dataset.path, value, "settled", x);
  }, { signal });

  // After the drawing was replaced: keep the held handle under the pointer and the focus where it was.
  return {
    get value() { return dragged?.value ?? null; },
    follow,
    loosen,
    focused: () => picture.contains(document.activeElement) && document.activeElement.dataset.path,
    refocus: (path) => path && find(path)?.focus({ preventScroll: true }),
    dispose: () => controller.abort(),
  };
}
