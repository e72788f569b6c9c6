// What the shop sends of a view, made whole: values that the page has already come as their names (see web/shared/lean.py).
// A value that did not change is the very object it was, so whoever shows it can leave it alone.
export class Known {
  #kept = new Map(); // of the last settled view
  #passing = new Map(); // of the last view of a drag, which says less
  #late = new Map(); // of what came last after a settled view

  // What to tell the shop: the names of all that the page has.
  get names() {
    return [...new Set([...this.#kept.keys(), ...this.#passing.keys(), ...this.#late.keys()])];
  }

  read(sent) {
    const here = new Map();
    const whole = this.#read(sent, here);
    if (sent.settled ?? true) this.#kept = here;
    this.#passing = here;
    return whole;
  }

  readLate(sent) {
    const here = new Map();
    const part = this.#read(sent, here);
    this.#late = here;
    return part;
  }

  #find(name) {
    return this.#passing.get(name) ?? this.#kept.get(name) ?? this.#late.get(name);
  }

  // `here` takes each named value with the names inside it: they are known as long as it is.
  #read(sent, here) {
    if (sent === null || typeof sent !== "object") return sent;
    if (Array.isArray(sent)) return sent.map((one) => this.#read(one, here));
    if ("=" in sent) return this.#again(sent["="], here);
    if ("*" in sent) return Object.assign({}, ...sent["*"].map((piece) => this.#read(piece, here)));
    if ("#" in sent) {
      const inside = new Map();
      const value = this.#read(sent.v, inside);
      for (const [name, one] of inside) here.set(name, one);
      here.set(sent["#"], { value, inside: [...inside.keys()] });
      return value;
    }
    const whole = {};
    for (const [name, one] of Object.entries(sent)) whole[name] = this.#read(one, here);
    return whole;
  }

  #again(name, here) {
    const one = this.#find(name);
    for (const inner of one.inside) here.set(inner, this.#find(inner));
    here.set(name, one);
    return one.value;
  }
}
