// Asking the shop and sending to it: the answer's body, or why there is none.
const token = () => document.querySelector('meta[name="csrf-token"]').content;
const AWAY = "The shop does not answer; is it still running?";

export const post = (url, body, { away = AWAY } = {}) => {
  const form = body instanceof FormData;
  const kind = form ? {} : { "Content-Type": "application/json" };
  return answered(url, { method: "POST", headers: { "X-CSRFToken": token(), "Lamsik-Units": document.documentElement.dataset.units, ...kind }, body: form ? body : JSON.stringify(body) }, away);
};

export const get = (url, { signal, away = AWAY } = {}) => answered(url, { signal }, away);

async function answered(url, asked, away) {
  try {
    const response = await fetch(url, { ...asked, headers: { Accept: "application/json", ...asked.headers } });
    const body = await response.json();
    return response.ok ? { ok: true, body } : { ok: false, message: body.error?.message ?? "The shop did not answer." };
  } catch {
    return { ok: false, away: true, message: away };
  }
}

// A part that can be shown or hidden, with its text.
export function tell(element, text) {
  element.hidden = !text;
  element.textContent = text;
}

// Asking again and again: the next question waits for the last answer, and nobody asks while the page is out of sight.
export function again(ask, every) {
  const controller = new AbortController(), { signal } = controller;
  let timer = null;
  const later = () => (timer = setTimeout(turn, every));

  async function turn() {
    if (!document.hidden) await ask(signal);
    if (!signal.aborted) later();
  }

  return { begin: turn, later, dispose: () => (clearTimeout(timer), controller.abort()) };
}
