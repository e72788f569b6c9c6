// Japanese text on the page, or typed into it: its face comes in slices, only those that hold these characters.
const WIDE = /[\u3000-\u30ff\u31f0-\u31ff\u3400-\u4dbf\u4e00-\u9fff\uff00-\uffef]/g;
const here = new Set();

export function ask(text) {
  const fresh = [...new Set(text.match(WIDE))].filter((char) => !here.has(char)).sort();
  if (!fresh.length) return;
  for (const char of fresh) here.add(char);
  document.head.append(Object.assign(document.createElement("link"), { rel: "stylesheet", href: `/wide.css?of=${encodeURIComponent(fresh.join(""))}` }));
}

ask([document.body.textContent, ...[...document.querySelectorAll("input, textarea")].map((field) => field.value)].join(" "));
document.addEventListener("input", ({ target }) => ask(target.value ?? ""));
