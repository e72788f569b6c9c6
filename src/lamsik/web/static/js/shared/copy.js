// Copies a text; on a page that is not secure it is selected, to be copied by hand.
const says = document.querySelector("[data-copied]");

async function copy(button) {
  const text = document.getElementById(button.dataset.copy);
  try {
    await navigator.clipboard.writeText(text.value);
    says.textContent = "Copied.";
  } catch {
    text.focus();
    text.select();
    const why = isSecureContext ? "" : " This page is not secure, so it may not copy by itself.";
    says.textContent = `It is selected: copy it by hand (Ctrl C).${why}`;
  }
}

for (const button of document.querySelectorAll("[data-copy]"))
  button.addEventListener("click", () => copy(button));
