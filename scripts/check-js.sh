#!/bin/sh
# Syntax of every JavaScript module, where Node.js is at hand.
set -eu
command -v node >/dev/null || { echo "JavaScript: Node.js is not here, syntax not checked"; exit 0; }
find src/lamsik/web/static/js -name '*.js' | while read -r file; do
  node --input-type=module --check < "$file" || { echo "in $file"; exit 1; }
done
echo "JavaScript: syntax ok"
