// On a phone a table has no head: each cell but the first, and but what is empty, knows what it is.
for (const table of document.querySelectorAll(".table")) {
  const heads = [...table.querySelectorAll("thead tr:last-child > *")].map((head) => (head.querySelector(".visually-hidden") ? "" : head.textContent.trim()));
  const later = [...table.querySelectorAll("template")].flatMap((one) => [...one.content.querySelectorAll("tr")]);
  for (const { children } of [...table.querySelectorAll("tbody tr"), ...later]) {
    if (children.length !== heads.length) continue;
    for (let at = 1; at < heads.length; at++) {
      const cell = children[at];
      if (heads[at] && (cell.textContent.trim() || cell.dataset.text || cell.firstElementChild)) cell.dataset.name ||= heads[at];
    }
  }
}
