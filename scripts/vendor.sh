#!/bin/sh
# Renew static/vendor from npm packages, pinned in scripts/vendor.json. Needs Node.js and the network.
set -eu
root=$(cd "$(dirname "$0")/.." && pwd)
target="$root/src/lamsik/web/static/vendor"
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
cp "$root/scripts/vendor.json" "$work/package.json"
(cd "$work" && npm install --silent --no-audit --no-fund >/dev/null)
modules="$work/node_modules"
rm -rf "$target"
mkdir -p "$target/fonts" "$target/icons"
cp "$root"/scripts/toolkit/* "$work/"
(cd "$work" && npx sass --quiet-deps --silence-deprecation=import,global-builtin,color-functions --no-source-map --style=compressed \
  --load-path="$modules/bootstrap/scss" toolkit.scss built.css && npx esbuild toolkit.js --bundle --minify --format=esm --target=es2022 --log-level=error \
  --legal-comments=none --banner:js='/*! Bootstrap and Popper, MIT licence: the parts used here, built by scripts/vendor.sh */' \
  --outfile="$target/bootstrap.js" && npx esbuild solid.js --bundle --minify --format=esm --target=es2022 --log-level=error \
  --legal-comments=none --banner:js='/*! three.js, MIT licence: the parts used here, built by scripts/vendor.sh */' \
  --outfile="$target/three.js" && npx esbuild reads.js --bundle --minify --format=esm --target=es2022 --log-level=error \
  --legal-comments=none --banner:js='/*! jsQR, Apache licence 2.0, built by scripts/vendor.sh */' \
  --outfile="$target/jsqr.js" && node purge.mjs built.css "$target/bootstrap.css" "$root")
for icon in $(cat "$root/scripts/icons.txt"); do cp "$modules/bootstrap-icons/icons/$icon.svg" "$target/icons/"; done
for face in atkinson-hyperlegible-next:wght bricolage-grotesque:wght spline-sans-mono:wght; do
  name=${face%%:*}; axis=${face##*:}
  for part in latin latin-ext; do cp "$modules/@fontsource-variable/$name/files/$name-$part-$axis-normal.woff2" "$target/fonts/"; done
done
for still in atkinson-hyperlegible-next-latin-400 atkinson-hyperlegible-next-latin-700 bricolage-grotesque-latin-700 spline-sans-mono-latin-400; do
  cp "$modules/@fontsource/${still%-latin-*}/files/$still-normal.woff2" "$target/fonts/"
done
for part in cyrillic cyrillic-ext greek greek-ext vietnamese devanagari; do cp "$modules/@fontsource/noto-sans/files/noto-sans-$part-400-normal.woff2" "$target/fonts/"; done
cp "$modules/@fontsource/noto-sans-jp/files/noto-sans-jp-japanese-400-normal.woff2" "$target/fonts/"
mkdir -p "$target/fonts/japanese"
node -e '
const fs = require("fs"), [from, to] = process.argv.slice(1), found = {};
for (const [name, range] of Object.entries(require(`${from}/unicode.json`))) {
  const slice = name.replace(/[\[\]]/g, ""), kept = range.split(",").filter((part) => parseInt(part.slice(2), 16) < 0x10000);
  if (!/^[0-9]+$/.test(slice) || !kept.length) continue;
  fs.copyFileSync(`${from}/files/noto-sans-jp-${slice}-400-normal.woff2`, `${to}/${slice}.woff2`);
  found[slice] = kept.join(",");
}
fs.writeFileSync(`${to}/ranges.json`, JSON.stringify(found, null, 1) + "\n");
' "$modules/@fontsource/noto-sans-jp" "$target/fonts/japanese"
node -e '
const fs = require("fs"), base = process.argv[1], wanted = Object.keys(require(base + "/../package.json").dependencies).filter((name) => !["sass", "purgecss", "esbuild"].includes(name));
const rows = wanted.map((name) => { const p = require(`${base}/${name}/package.json`); return `| ${name} | ${p.version} | ${p.license} |`; });
fs.writeFileSync(process.argv[2], ["# Vendored from npm by scripts/vendor.sh", "", "| package | version | licence |", "|---|---|---|", ...rows, ""].join("\n"));
' "$modules" "$target/README.md"
cat "$target/README.md"
