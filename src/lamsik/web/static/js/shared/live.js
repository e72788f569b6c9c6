// The exchange with the server's core: edits go out, the recomputed state comes back.
// One request is under way at a time; drags in between collapse to the newest; answers that
// were overtaken (by undo, say) are dropped by their number.

import { Known } from "./lean.js";
import { post } from "./post.js";

// A later edit of the same thing makes an earlier one, not yet sent, needless.
const overtakes = (edit, other) => edit.do === other.do && ["set", "point", "exponent"].includes(edit.do) && ["path", "line", "index", "half"].every((name) => edit[name] === other[name]) && !("x_text" in other);

// What is asked for next; of several the last of these.
const MODES = ["drag", "look", "settled"];

export class Live extends EventTarget {
  constructor({ state }) {
    super();
    this.known = new Known();
    state.view = this.known.read(state.view);
    Object.assign(this, { state, queue: [], flying: [], busy: false, number: 0, stepping: 0, looks: "", facing: "", station: null, wanted: null, trail: [], kept: null });
  }

  // While trying, settled answers are shown but not saved; `kept` is the saved state to come back to.
  get trying() {
    return this.kept !== null;
  }

  startTrying() {
    this.kept = this.trying ? this.kept : structuredClone(this.state);
    this.tell("state");
  }

  async keepTry() {
    this.kept = null;
    await this.edit(null);
  }

  dropTry() {
    if (!this.trying) return;
    this.number += 1;
    this.queue = [];
    Object.assign(this.state, this.kept, { errors: [] });
    this.kept = null;
    this.tell("saved");
    this.tell("state");
    this.look(); // all of it may not have come yet when the trial began
  }

  // mode "drag" computes the watched branch only and saves nothing; "settled" computes all and saves.
  edit(edit, { mode = "settled" } = {}) {
    if (edit) {
      this.queue = this.queue.filter((other) => !overtakes(edit, other));
      this.queue.push(edit);
    }
    this.want(mode);
    if (edit || mode === "settled") this.tell("pending");
    return this.pump();
  }

  // Compute all as it stands, from where it is looked at now; nothing is saved.
  look() {
    this.want("look");
    return this.pump();
  }

  want(mode) {
    if (MODES.indexOf(mode) > MODES.indexOf(this.wanted)) this.wanted = mode;
  }

  async pump() {
    if (this.busy || !this.wanted) return;
    const mode = this.wanted, edits = this.queue.splice(0);
    this.flying = edits;
    this.wanted = null;
    await this.alone(() => this.exchange(mode, edits));
  }

  // One thing at a time is asked of the shop: each save and step names the revision that the one before left.
  async alone(work) {
    this.busy = true;
    try {
      await (this.running = work());
    } finally {
      this.busy = false;
      if (this.wanted) this.pump();
    }
  }

  // All that was done on the page is answered.
  async settled() {
    while (this.busy) await this.running;
  }

  async exchange(mode, edits) {
    const number = ++this.number;
    const drag = mode === "drag";
    const answer = await this.send("live", {
      document: this.state.document, base: this.state.base, edits, mode, save: mode === "settled" && !this.trying, near: drag ? this.state.view.near : null, trail: this.trail,
    });
    if (!answer.ok) {
      this.queue.unshift(...edits);
      this.flying = [];
      return this.tell("failed", answer.message);
    }
    this.flying = [];
    if (number === this.number) this.take(answer.body);
  }

  // Whether a typed text is still on its way: until it is answered it stays in its field.
  isPending(path) {
    return [...this.queue, ...this.flying].some((edit) => edit.path === path);
  }

  // Where G was since the drag began, for its trail on the drawing.
  follow(g) {
    const last = this.trail.at(-1);
    if (g && (!last || Math.hypot(g[0] - last[0], g[1] - last[1]) > 0.02)) this.trail = [...this.trail, g].slice(-60);
  }

  async send(way, body) {
    const url = `${this.state.root ?? "/designs"}/${this.state.id}/${way}`;
    const asked = { bench: this.state.bench, has: this.known.names, looks: this.looks, facing: this.facing, station: this.station, ...body };
    return post(url, asked, { away: "The shop does not answer; is it still running? Your change stays here." });
  }

  take(answer) {
    // What only a settled answer knows stays on the page while something is dragged.
    const sent = this.known.read(answer.view);
    const view = sent.settled ? sent : { ...this.state.view, ...sent };
    Object.assign(this.state, answer, { view });
    this.tell(answer.saved ? "saved" : "shown");
    this.tell("state");
    if (sent.late) this.later();
  }

  // What takes longer than the verdict is asked for once that is shown; an edit made meanwhile does not wait for it.
  async later() {
    const number = this.number;
    const answer = await this.send("live", { document: this.state.document, mode: "late" });
    if (number !== this.number || this.wanted) return;
    Object.assign(this.state.view, answer.ok ? this.known.readLate(answer.body.view) : { late_problem: answer.message });
    this.tell("state");
  }

  // Steps follow one another; each names the revision it steps from, so a save under way is waited for.
  step(way) {
    if (this.trying) return this.dropTry();
    this.stepping += 1;
    this.tell("stepping", way);
    return (this.steps = (this.steps ?? Promise.resolve()).then(() => this.stepOnce(way)));
  }

  async stepOnce(way) {
    await this.settled(); // what was typed just before is saved first, and is what undo takes back
    this.queue = [];
    this.number += 1;
    this.tell("stepping", way); // what was saved meanwhile said so
    await this.alone(async () => {
      const answer = await this.send(way, { base: this.state.base });
      if (!answer.ok) return this.tell("failed", answer.message);
      this.take(answer.body);
    });
    this.stepping -= 1;
    if (!this.stepping) this.look();
  }

  tell(type, message = "") {
    this.dispatchEvent(new CustomEvent(type, { detail: message }));
  }
}
