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

const GRAMS = { g: 1, kg: 1000, mg: 0.001, oz: 28.349523125, lb: 453.59237, grain: 0.06479891, grains: 0.06479891, gn: 0.06479891 };

// A plain typed mass in grams, for a guide beside it; a number alone is in this unit. What only the shop can read is no number.
export function gramsOf(text, unit) {
  const typed = text.trim().replace("−", "-").replace(",", ".").match(/^(-?[\d.]+)\s*([a-z]*)$/);
  return typed ? Number(typed[1]) * (GRAMS[typed[2] || unit] ?? Number.NaN) : Number.NaN;
}
