// Leaves out what no page and no module names: `node purge.mjs built.css target.css root`.
import { readFileSync, writeFileSync } from "node:fs";
import { PurgeCSS } from "purgecss";

const [built, target, root] = process.argv.slice(2);
const [{ css }] = await new PurgeCSS().purge({
  css: [{ raw: readFileSync(built, "utf8").replace(/^\uFEFF/, "") }],
  content: [`${root}/src/lamsik/web/**/*.html`, `${root}/src/lamsik/web/**/*.py`, `${root}/src/lamsik/web/static/js/**/*.js`, `${root}/src/lamsik/web/static/vendor/bootstrap.js`],
  keyframes: true,
  safelist: { standard: ["html", "body"], deep: [/^data-bs-theme/] },
});
writeFileSync(target, `/*! Bootstrap, MIT licence: the parts used here, built by scripts/vendor.sh */\n${css}\n`);
