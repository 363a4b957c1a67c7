#!/bin/sh
# Lint and type-check the pages' scripts. The tools come from the npm registry (some seconds, once).
set -eu
cd "$(dirname "$0")/js"
command -v npm >/dev/null || { echo "fandle: no npm: the scripts are not checked here" >&2; exit "${NPM_REQUIRED:-0}"; }
[ -d node_modules ] && [ node_modules -nt package-lock.json ] || {
  npm ci --ignore-scripts --no-audit --no-fund --silent >/dev/null 2>&1 && touch node_modules
}
npx --no-install tsc -p tsconfig.json
cd ../..
NODE_PATH=tools/js/node_modules tools/js/node_modules/.bin/eslint --config tools/js/eslint.config.mjs src/fandle/web/static/js
