// Sending to the shop: the answer's body, or why there is none.
const token = () => document.querySelector('meta[name="csrf-token"]').content;

export async function post(url, body) {
  const form = body instanceof FormData;
  try {
    const response = await fetch(url, {
      method: "POST",
      headers: { Accept: "application/json", "X-CSRFToken": token(), ...(form ? {} : { "Content-Type": "application/json" }) },
      body: form ? body : JSON.stringify(body),
    });
    const answer = await response.json();
    return response.ok ? { ok: true, body: answer } : { ok: false, message: spoken(answer.error) };
  } catch {
    return { ok: false, message: "The shop does not answer; is it still running?" };
  }
}

const spoken = (error) => error?.message ?? "The shop did not answer.";

// A part that can be shown or hidden, with its text.
export function tell(element, text) {
  element.hidden = !text;
  element.textContent = text;
}
