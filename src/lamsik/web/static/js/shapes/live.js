// The exchange with the server's core: edits go out, the recomputed state comes back.
// One request is under way at a time; drags in between collapse to the newest; answers that
// were overtaken (by undo, say) are dropped by their number.

export class Live extends EventTarget {
  constructor({ state, token }) {
    super();
    Object.assign(this, { state, token, queue: [], busy: false, number: 0, looks: "", wanted: null });
  }

  // mode "drag" computes the watched branch only and saves nothing; "settled" computes all and saves.
  edit(edit, { mode = "settled" } = {}) {
    if (edit) {
      this.queue = this.queue.filter((other) => !(edit.do === "set" && other.do === "set" && other.path === edit.path));
      this.queue.push(edit);
    }
    this.wanted = this.wanted === "settled" ? "settled" : mode;
    this.tell("pending");
    return this.pump();
  }

  async pump() {
    if (this.busy || !this.wanted) return;
    this.busy = true;
    const mode = this.wanted, edits = this.queue.splice(0);
    this.wanted = null;
    try {
      await this.exchange(mode, edits);
    } finally {
      this.busy = false;
      if (this.wanted) this.pump();
    }
  }

  async exchange(mode, edits) {
    const number = ++this.number;
    const answer = await this.send("live", {
      document: this.state.document, base: this.state.base, edits, mode, save: mode === "settled", near: mode === "drag" ? this.state.view.near : null,
    });
    if (!answer.ok) {
      this.queue.unshift(...edits);
      return this.tell("failed", answer.message);
    }
    if (number === this.number) this.take(answer.body);
  }

  async send(way, body) {
    try {
      const response = await fetch(`/designs/${this.state.id}/${way}`, {
        method: "POST",
        headers: { "Content-Type": "application/json", "X-CSRFToken": this.token },
        body: JSON.stringify({ bench: this.state.bench, looks: this.looks, ...body }),
      });
      const answer = await response.json();
      return response.ok ? { ok: true, body: answer } : { ok: false, message: answer.error?.message ?? "The shop did not answer." };
    } catch {
      return { ok: false, message: "The shop does not answer; is it still running? Your change stays here." };
    }
  }

  take(answer) {
    Object.assign(this.state, answer);
    this.tell(answer.saved ? "saved" : "shown");
    this.tell("state");
  }

  async step(way) {
    this.number += 1;
    this.queue = [];
    const answer = await this.send(way, {});
    if (!answer.ok) return this.tell("failed", answer.message);
    this.take(answer.body);
    this.edit(null, { mode: "drag" });
  }

  tell(type, message = "") {
    this.dispatchEvent(new CustomEvent(type, { detail: message }));
  }
}
