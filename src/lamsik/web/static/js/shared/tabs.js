// Tabs: arrow keys move between them, the chosen one is kept in the address so that it survives a reload.
export function enableTabs({ list, signal }) {
  const tabs = [...list.querySelectorAll('[role="tab"]')];

  function choose(tab, focus = false) {
    for (const other of tabs) {
      const on = other === tab;
      other.setAttribute("aria-selected", String(on));
      other.tabIndex = on ? 0 : -1;
      document.getElementById(other.getAttribute("aria-controls")).hidden = !on;
    }
    if (focus) tab.focus();
    history.replaceState(null, "", tab === tabs[0] ? location.pathname + location.search : `#${tab.id.replace("tab-", "")}`);
  }

  list.addEventListener("click", ({ target }) => target.closest('[role="tab"]') && choose(target.closest('[role="tab"]')), { signal });
  list.addEventListener("keydown", (event) => {
    const step = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    const edge = { Home: 0, End: tabs.length - 1 }[event.key];
    if (step === undefined && edge === undefined) return;
    event.preventDefault();
    choose(tabs[edge ?? (tabs.indexOf(document.activeElement) + step + tabs.length) % tabs.length], true);
  }, { signal });
  function follow() {
    const named = tabs.find((tab) => tab.id === `tab-${location.hash.slice(1)}`);
    if (named) choose(named);
  }

  addEventListener("hashchange", follow, { signal });
  follow();
}
