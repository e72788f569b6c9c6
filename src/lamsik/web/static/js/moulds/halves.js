// Halves to print: asked for, their progress shown, then offered as files with what to know of each.
import { work } from "../shared/job.js";
import { tell } from "../shared/post.js";
import { build } from "../shared/svg.js";

const at = (id) => document.getElementById(id);
const far = at("how-far");
const job = work({ url: at("halves").dataset.url, said: say, done: offer, failed: end });

function say(share, text) {
  far.hidden = !text;
  far.querySelector("progress").value = share;
  far.querySelector("span").textContent = text;
}

function offer({ parts, sum }) {
  end("");
  at("parts").replaceChildren(...parts.map(shown));
  at("sum").textContent = sum;
}

function end(problem) {
  say(0, "");
  at("stop").hidden = true;
  at("work-out").disabled = false;
  tell(at("halves-problem"), problem);
}

function shown(part) {
  const row = document.createElement("li"), picture = document.createElement("div"), title = document.createElement("strong"), note = document.createElement("span"), link = document.createElement("a");
  row.className = "d-grid gap-1 justify-items-start";
  picture.className = "fit max-h-15 w-100 bg-card rounded";
  picture.append(build(part.picture));
  title.textContent = `${part.name}, ${part.volume}`;
  note.textContent = `${part.note}; ${part.faces} triangles, watertight`;
  Object.assign(link, { href: part.url, className: "btn btn-outline-secondary", textContent: `STL of the ${part.name}` });
  row.append(picture, title, note, link);
  return row;
}

at("work-out").addEventListener("click", () => {
  tell(at("halves-problem"), "");
  at("work-out").disabled = true;
  at("stop").hidden = false;
  say(0, "beginning");
  job.begin({});
});

at("stop").addEventListener("click", () => {
  job.stop();
  end("");
});
