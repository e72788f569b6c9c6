// Handles in a drawing: they follow the pointer at every frame, and the arrow keys nudge them.
// Each names the field it sets (data-path) and how its coordinate makes the value (axis, factor, offset).

export function enableHandles({ picture, set, signal }) {
  let dragged = null;

  const frameOf = (handle) => handle.parentNode.getScreenCTM();
  const valueOf = (handle) => Number(handle.getAttribute("aria-valuenow"));
  const find = (path) => picture.querySelector(`.handle[data-path="${CSS.escape(path)}"]`);

  function pointed(handle, event) {
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(frameOf(handle).inverse());
    return handle.dataset.axis === "x" ? at.x : at.y;
  }

  function follow() {
    const handle = dragged && find(dragged.path);
    if (!handle) return;
    const { axis, factor, offset } = handle.dataset;
    const base = (valueOf(handle) - Number(offset)) / Number(factor);
    const shift = (dragged.value - Number(offset)) / Number(factor) - base;
    handle.setAttribute("transform", axis === "x" ? `translate(${shift} 0)` : `translate(0 ${shift})`);
    handle.classList.add("held");
  }

  function move(event) {
    const handle = dragged && find(dragged.path);
    if (!handle) return;
    const moved = (pointed(handle, event) - dragged.start) * Number(handle.dataset.factor);
    dragged.value = clamp(handle, dragged.from + moved);
    follow();
    set(dragged.path, dragged.value, "drag");
  }

  const clamp = (handle, value) => Math.min(Math.max(value, Number(handle.getAttribute("aria-valuemin"))), Number(handle.getAttribute("aria-valuemax")));

  picture.addEventListener("pointerdown", (event) => {
    const handle = event.target.closest?.(".handle");
    if (!handle) return;
    event.preventDefault();
    handle.focus();
    dragged = { path: handle.dataset.path, start: pointed(handle, event), from: valueOf(handle), value: valueOf(handle) };
    picture.setPointerCapture(event.pointerId);
  }, { signal });
  picture.addEventListener("pointermove", move, { signal });
  const drop = () => {
    if (!dragged) return;
    const { path, value, from } = dragged;
    dragged = null;
    if (value !== from) set(path, value, "settled");
  };
  picture.addEventListener("pointerup", drop, { signal });
  picture.addEventListener("pointercancel", drop, { signal });

  picture.addEventListener("keydown", (event) => {
    const handle = event.target.closest?.(".handle");
    const way = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[event.key];
    if (!handle || !way) return;
    event.preventDefault();
    const step = event.shiftKey ? 5 : event.altKey ? 0.1 : 0.5;
    const value = clamp(handle, valueOf(handle) + way * step);
    handle.setAttribute("aria-valuenow", value.toFixed(1));
    set(handle.dataset.path, value, "settled");
  }, { signal });

  // After the drawing was replaced: keep the held handle under the pointer and the focus where it was.
  return { follow, focused: () => picture.contains(document.activeElement) && document.activeElement.dataset.path, refocus: (path) => path && find(path)?.focus({ preventScroll: true }) };
}
