// The Tank's own controls: tabs, ballast answers, trial weights, and trying things without saving.
import { bind } from "../shared/bind.js";
import { post } from "../shared/post.js";
import { tabs } from "../shared/tabs.js";
import { live, main, signal } from "../shared/workbench.js";

tabs(main.querySelector('[role="tablist"]'));

const at = (id) => document.getElementById(id);
const chosen = (id) => at(id).value;

at("other").addEventListener("change", ({ target }) => location.assign(target.value), { signal });
at("add-slug").addEventListener("click", () => live.edit({ do: "slug", code: chosen("f-slug") }), { signal });

// Answers of the core under a list: asked for, shown with their pictures, one of them put on.
function answerList({ id, way, asking, found }) {
  let rows = [], of = ""; // answers, and to which document
  const list = at(id), why = at(`${id}-why`);
  const say = (text) => ((why.hidden = !text), (why.textContent = text));
  const show = () => bind(list, { answers: rows });

  async function ask() {
    say(asking);
    await live.settled(); // a figure that was just typed is part of the question
    of = JSON.stringify(live.state.document);
    const answer = await live.send(way, { document: live.state.document });
    rows = answer.ok ? answer.body.answers.map((row) => ({ ...row, lost: !row.holds, picture: null })) : [];
    say(answer.ok ? answer.body.why || found : answer.message);
    show();
    (list.querySelector("li") ?? why).scrollIntoView({ block: "nearest" });
    drawSmall(rows);
    return answer.ok ? answer.body : {};
  }

  // The answers can be read and taken while their pictures are drawn.
  async function drawSmall(asked) {
    if (!asked.length) return;
    const answer = await live.send("pictures", { document: JSON.parse(of), edits: asked.map((row) => row.edit) });
    if (!answer.ok || rows !== asked) return;
    rows = asked.map((row, index) => ({ ...row, picture: answer.body.pictures[index] }));
    show();
  }

  list.addEventListener("click", async ({ target }) => {
    const key = target.closest("[data-answer]")?.dataset.answer;
    if (!key) return;
    await live.edit(rows.find((row) => row.key === key).edit);
    clear();
  }, { signal });

  live.addEventListener("state", () => rows.length && JSON.stringify(live.state.document) !== of && clear());

  function clear() {
    rows = [];
    show();
    say("");
  }
  return { ask, clear };
}

const ballast = answerList({ id: "answers", way: "ballast", asking: "Looking through slugs and drills…", found: "Best first. Each is for the finished bait, coats and hooks included." });
const inside = answerList({ id: "inside", way: "trials", asking: "Looking for a place inside…", found: "Put one on and the trial weights come off." });

async function findInside() {
  const { differences = [] } = await inside.ask();
  bind(at("differences"), { differences });
}

function showTrying() {
  at("trying").hidden = !live.trying;
  at("whatif").hidden = !live.trying;
  at("try-hint").hidden = live.trying;
  if (!live.state.view.trials?.length) bind(at("differences"), { differences: [] });
}

const clicks = {
  "find-ballast": ballast.ask,
  "find-inside": findInside,
  "add-trial": () => live.edit({ do: "trial", place: chosen("f-trial") }),
  "add-allow": () => live.edit({ do: "allow", kind: chosen("f-allow") }),
  "add-cavity": () => live.edit({ do: "cavity", code: chosen("f-slug") }),
  "start-try": () => live.startTrying(),
  "keep-try": () => live.keepTry(),
  "drop-try": () => live.dropTry(),
};

main.addEventListener("click", ({ target }) => {
  const button = target.closest("button");
  clicks[button?.id]?.();
  if (button?.dataset.back) takeBack(button.dataset.back);
}, { signal });

// A run that was mistyped is taken back like any other step; the page then shows the rest.
async function takeBack(action) {
  await post(action, {});
  location.reload();
}

live.addEventListener("state", showTrying);
showTrying();
addEventListener("beforeunload", (event) => live.trying && event.preventDefault());

live.look(); // what a first page leaves out
