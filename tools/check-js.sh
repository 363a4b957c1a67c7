#!/bin/sh
# Lint and type-check the pages' scripts. The tools come from the npm registry (some seconds, once).
set -eu
"$(dirname "$0")/need-node.sh"
cd "$(dirname "$0")/js"
if [ ! -d node_modules ] || [ package-lock.json -nt node_modules ]; then
  npm ci --ignore-scripts --no-audit --no-fund --silent >/dev/null || {
    echo "fandle: the tools that check the scripts cannot be installed: try again when the npm registry answers" >&2; exit 1; }
  touch node_modules
fi
node_modules/.bin/tsc -p tsconfig.json
cd ../..
tools/js/node_modules/.bin/eslint --config tools/js/eslint.config.mjs src/fandle/web/static/js
