// The mould's own controls: tabs, ticks, how many cavities. The exchange is the workbench's.
import { tabs } from "../shared/tabs.js";
import { live, main, signal } from "../shared/workbench.js";

tabs(main.querySelector('[role="tablist"]'));
const at = (id) => document.getElementById(id);

function showCount() {
  if (document.activeElement !== at("f-count")) at("f-count").value = live.state.view.count;
}
live.addEventListener("state", showCount, { signal });
showCount();

at("arrange").addEventListener("submit", (event) => {
  event.preventDefault();
  live.edit({ do: "arrange", count: Number(at("f-count").value.replace(",", ".")) });
}, { signal });
