// Bringing shapes in: forms say that they are busy; a mesh is read beside the page and asked after.
import { work } from "../shared/job.js";
import { post, tell } from "../shared/post.js";
import { build } from "../shared/svg.js";
import { length } from "../shared/units.js";

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

let read = null;
const form = at("mesh-form");
const job = form && work({ url: form.action, said: busy, done: shown, failed: fail });

form?.addEventListener("submit", (event) => {
  event.preventDefault();
  tell(at("mesh-problem"), "");
  at("mesh-body").hidden = true;
  const file = at("mesh").files[0];
  if (!file) return tell(at("mesh-problem"), "Choose an STL file.");
  busy(0.02, "sending the file");
  const body = new FormData();
  body.append("mesh", file);
  job.begin(body);
});

function busy(share, says) {
  at("mesh-progress").hidden = share === null;
  if (share !== null) at("mesh-share").value = share;
  at("mesh-says").textContent = says;
}

function fail(message, found = null) {
  busy(null, "");
  tell(at("mesh-problem"), found ? `This mesh cannot be brought in. ${message}` : message);
}

function shown(state) {
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
  const sizes = [x, y, z].map((value) => (unit ? length(value) : value.toFixed(1))).join(" × ");
  at("mesh-size").textContent = unit ? `That makes it ${sizes} along x, y and z.` : `The file says ${sizes} along x, y and z; an STL does not say in what unit.`;
}
at("mesh-unit")?.addEventListener("change", showSize);

at("mesh-stop")?.addEventListener("click", () => {
  job.stop();
  busy(null, "");
});

at("mesh-body")?.addEventListener("submit", async (event) => {
  event.preventDefault();
  tell(at("mesh-problem"), "");
  const answer = await post(`${form.action}/${job.value}/body`, {
    unit: at("mesh-unit").value, nose: at("mesh-nose").value, up: at("mesh-up").value, material: at("mesh-material").value,
  });
  if (!answer.ok) return tell(at("mesh-problem"), answer.message);
  location.assign(answer.body.url);
});
