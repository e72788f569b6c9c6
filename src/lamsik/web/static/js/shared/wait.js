// Links that take a while (data-wait) say so until the answer comes.
for (const link of document.querySelectorAll("a[data-wait]")) {
  const words = link.querySelector("span");
  const before = words.textContent;
  link.addEventListener("click", () => {
    words.textContent = link.dataset.wait;
    link.setAttribute("aria-busy", "true");
  });
  addEventListener("pageshow", () => {
    words.textContent = before;
    link.removeAttribute("aria-busy");
  });
}
