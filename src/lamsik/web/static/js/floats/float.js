// The float's own controls: tabs, which part is pulled at, materials, parts, sizing. The exchange is the workbench's.
import { tabs } from "../shared/tabs.js";
import { live, main, signal } from "../shared/workbench.js";

tabs(main.querySelector('[role="tablist"]'));
const at = (id) => document.getElementById(id);
live.looks = live.state.view.pulled;

function showFlags() {
  for (const box of main.querySelectorAll("input[data-flag]")) box.checked = box.dataset.on === "true";
  at("marks-here").replaceChildren(...live.state.document.marks.map((mark) => new Option(mark.name, mark.name)));
}
live.addEventListener("state", showFlags, { signal });
showFlags();

main.addEventListener("change", ({ target }) => {
  if ("partMaterial" in target.dataset && target.value) {
    live.edit({ do: "material", key: target.dataset.key, name: target.value });
    target.value = "";
  }
}, { signal });

main.addEventListener("click", ({ target }) => {
  const button = target.closest("button[data-pull]");
  if (!button) return;
  live.looks = live.looks === button.dataset.pull ? "" : button.dataset.pull;
  live.look();
}, { signal });

at("add-float-part").addEventListener("click", () => live.edit({ do: "add", group: "parts", kind: at("f-part").value }), { signal });
at("add-profile-point").addEventListener("click", () => live.looks && live.edit({ do: "add_point", line: live.looks }), { signal });
at("size-form").addEventListener("submit", (event) => {
  event.preventDefault();
  live.edit({ do: "size", text: at("s-text").value, by: at("s-by").value });
}, { signal });
