// Two pictures over each other: the slider says how much of the upper one is wiped away.
const slider = document.querySelector("[data-wipe]"), upper = document.querySelector("[data-wiped]");

function wipe() {
  upper.style.clipPath = `inset(0 0 0 ${slider.value}%)`;
  slider.setAttribute("aria-valuetext", `${slider.value} %`);
}

if (slider) {
  slider.addEventListener("input", wipe);
  wipe();
}
