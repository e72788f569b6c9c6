// Figures that a page shows before the shop can answer, in the units that the page was made in (see core/quantities.py).
const chosen = document.documentElement.dataset.units;
const point = (text) => (chosen[9] === "1" ? text.replace(".", ",") : text).replace("-", "−");

const LENGTHS = [(mm) => `${mm.toFixed(1)} mm`, (mm) => `${(mm / 25.4).toFixed(3)} in`];
const MASSES = [
  (grams) => `${grams.toFixed(2)} g`,
  (grams) => `${(grams / 28.349523125).toFixed(4)} oz`,
  (grams) => `${(grams / 0.06479891).toFixed(1)} grain`,
];

export const length = (mm) => point(LENGTHS[chosen[0]](mm));
export const mass = (grams) => point(MASSES[chosen[2]](grams));
