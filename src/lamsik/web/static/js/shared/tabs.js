// Tabs: arrow keys move between them, the chosen one is kept in the address so that it survives a reload.
export function tabs(list) {
  const controller = new AbortController(), { signal } = controller;
  const all = [...list.querySelectorAll('[role="tab"]')];
  let value = "";

  function choose(tab, focus = false) {
    for (const other of all) {
      const on = other === tab;
      other.setAttribute("aria-selected", String(on));
      other.classList.toggle("active", on);
      other.tabIndex = on ? 0 : -1;
      document.getElementById(other.getAttribute("aria-controls")).hidden = !on;
    }
    if (focus) tab.focus();
    value = tab.id.replace("tab-", "");
    history.replaceState(null, "", tab === all[0] ? location.pathname + location.search : `#${value}`);
  }

  list.addEventListener("click", ({ target }) => target.closest('[role="tab"]') && choose(target.closest('[role="tab"]')), { signal });
  list.addEventListener("keydown", (event) => {
    const step = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    const edge = { Home: 0, End: all.length - 1 }[event.key];
    if (step === undefined && edge === undefined) return;
    event.preventDefault();
    choose(all[edge ?? (all.indexOf(document.activeElement) + step + all.length) % all.length], true);
  }, { signal });
  function follow() {
    const named = all.find((tab) => tab.id === `tab-${location.hash.slice(1)}`);
    if (named) choose(named);
  }

  addEventListener("hashchange", follow, { signal });
  follow();
  return { get value() { return value; }, dispose: () => controller.abort() };
}
