// Halves to print: asked for, their progress shown, then offered as files with what to know of each.
import { post, tell } from "../shared/post.js";
import { build } from "../shared/svg.js";

const at = (id) => document.getElementById(id);
const room = at("halves"), far = at("how-far");
let job = null;

function say(share, text) {
  far.hidden = !text;
  far.querySelector("progress").value = share;
  far.querySelector("span").textContent = text;
}

async function follow() {
  const response = await fetch(`${room.dataset.url}/${job}`, { headers: { Accept: "application/json" } }).catch(() => null);
  if (!job) return;
  if (!response?.ok) return end("The shop does not answer; is it still running?");
  const answer = await response.json();
  if (answer.problem) return end(answer.problem);
  if (!answer.done) {
    say(answer.share, answer.says);
    return setTimeout(follow, 150);
  }
  end("");
  at("parts").replaceChildren(...answer.parts.map(shown));
  at("sum").textContent = answer.sum;
}

function end(problem) {
  job = null;
  say(0, "");
  at("stop").hidden = true;
  at("work-out").disabled = false;
  tell(at("halves-problem"), problem);
}

function shown(part) {
  const row = document.createElement("li"), title = document.createElement("strong"), note = document.createElement("span"), link = document.createElement("a");
  title.textContent = `${part.name}, ${part.volume}`;
  note.textContent = `${part.note}; ${part.faces} triangles, watertight`;
  Object.assign(link, { href: part.url, className: "quiet button", textContent: `STL of the ${part.name}` });
  row.append(build(part.picture), title, note, link);
  return row;
}

at("work-out").addEventListener("click", async () => {
  tell(at("halves-problem"), "");
  at("work-out").disabled = true;
  say(0, "beginning");
  const answer = await post(room.dataset.url, {});
  if (!answer.ok) return end(answer.message);
  job = answer.body.job;
  at("stop").hidden = false;
  follow();
});

at("stop").addEventListener("click", () => {
  post(`${room.dataset.url}/${job}/drop`, {});
  end("");
});
