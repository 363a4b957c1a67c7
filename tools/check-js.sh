#!/bin/sh
# Lint and type-check the pages' scripts. The tools come from the npm registry (some seconds, once).
set -eu
cd "$(dirname "$0")/js"
command -v npm >/dev/null || { echo "fandle: no npm here: the pages' scripts are not checked" >&2; exit 0; }
if [ ! -d node_modules ] || [ package-lock.json -nt node_modules ]; then
  npm ci --ignore-scripts --no-audit --no-fund --silent >/dev/null 2>&1 || {
    echo "fandle: the npm registry does not answer: the pages' scripts are not checked" >&2; exit 0; }
  touch node_modules
fi
node_modules/.bin/tsc -p tsconfig.json
cd ../..
tools/js/node_modules/.bin/eslint --config tools/js/eslint.config.mjs src/fandle/web/static/js
