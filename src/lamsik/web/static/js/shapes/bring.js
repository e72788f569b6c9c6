// Bringing shapes in: forms say that they are busy; a mesh is read beside the page and asked after.
import { post, tell } from "../shared/post.js";
import { build } from "../shared/svg.js";

const at = (id) => document.getElementById(id);

for (const form of document.querySelectorAll("form[data-busy]")) {
  const button = form.querySelector("button:not([type])"), words = button.textContent;
  form.addEventListener("submit", () => {
    button.textContent = form.dataset.busy;
    button.setAttribute("aria-busy", "true");
  });
  addEventListener("pageshow", () => {
    button.textContent = words;
    button.removeAttribute("aria-busy");
  });
}

let job = null, read = null;
const form = at("mesh-form");

form?.addEventListener("submit", async (event) => {
  event.preventDefault();
  tell(at("mesh-problem"), "");
  at("mesh-body").hidden = true;
  const file = at("mesh").files[0];
  if (!file) return tell(at("mesh-problem"), "Choose an STL file.");
  busy(0.02, "sending the file");
  const body = new FormData();
  body.append("mesh", file);
  const answer = await post(form.action, body);
  if (!answer.ok) return fail(answer.message);
  job = answer.body.job;
  follow(job);
});

function busy(share, says) {
  at("mesh-progress").hidden = share === null;
  if (share !== null) at("mesh-share").value = share;
  at("mesh-says").textContent = says;
}

function fail(message) {
  busy(null, "");
  tell(at("mesh-problem"), message);
}

async function follow(key) {
  const response = await fetch(`${form.action}/${key}`, { headers: { Accept: "application/json" } });
  if (job !== key) return;
  if (!response.ok) return fail("The shop does not know that file any more: choose it again.");
  const state = await response.json();
  if (!state.done) {
    busy(state.share, state.says);
    return setTimeout(() => follow(key), 150);
  }
  if (state.problem) return fail(`This mesh cannot be brought in. ${state.problem}`);
  busy(null, "");
  read = state;
  at("mesh-good").textContent = [`Closed: ${state.faces} triangles.`, ...state.notes.map((note) => `${note[0].toUpperCase()}${note.slice(1)}.`)].join(" ");
  at("mesh-picture").replaceChildren(build(state.picture));
  at("mesh-body").hidden = false;
  showSize();
}

const MM = { mm: 1, cm: 10, in: 25.4, m: 1000 };
function showSize() {
  const unit = at("mesh-unit").value, [x, y, z] = read.size.map((value) => value * (MM[unit] ?? 1));
  const sizes = [x, y, z].map((value) => value.toFixed(1)).join(" × ");
  at("mesh-size").textContent = unit ? `That makes it ${sizes} mm along x, y and z.` : `The file says ${sizes} along x, y and z; an STL does not say in what unit.`;
}
at("mesh-unit")?.addEventListener("change", showSize);

at("mesh-stop")?.addEventListener("click", () => {
  const key = job;
  job = null;
  busy(null, "");
  if (key) post(`${form.action}/${key}/drop`, {});
});

at("mesh-body")?.addEventListener("submit", async (event) => {
  event.preventDefault();
  tell(at("mesh-problem"), "");
  const answer = await post(`${form.action}/${job}/body`, {
    unit: at("mesh-unit").value, nose: at("mesh-nose").value, up: at("mesh-up").value, material: at("mesh-material").value,
  });
  if (!answer.ok) return tell(at("mesh-problem"), answer.message);
  location.assign(answer.body.url);
});
