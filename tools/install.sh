#!/bin/sh
# Install what a lock names, by its hashes, into .venv: with uv in seconds; with pip where uv is not to be had.
# tools/install.sh runtime | tools/install.sh test
set -eu
python=.venv/bin/python
lock=requirements/$1.txt

# pip, whoever has it: the environment, the Python it was made with, or what Python brings along
pip() {
  if "$python" -m pip --version >/dev/null 2>&1; then set -- "$python" -m pip "$@"
  elif "${PYTHON:-python3}" -m pip --python "$python" --version >/dev/null 2>&1; then
    set -- "${PYTHON:-python3}" -m pip --python "$python" "$@"
  else "$python" -m ensurepip >/dev/null; set -- "$python" -m pip "$@"
  fi
  "$@" --quiet --disable-pip-version-check --root-user-action ignore --no-deps
}
uv() { "$python" -m uv pip install --quiet --python "$python" --no-deps "$@"; }

"$python" -m uv --version >/dev/null 2>&1 \
  || pip install --require-hashes -r requirements/installers.txt \
  || echo "fandle: uv cannot be installed here: pip does it, which takes about a minute" >&2
uv --require-hashes -r "$lock" 2>/dev/null || pip install --require-hashes -r "$lock"

if [ "$1" = runtime ]; then
  uv --no-build-isolation -e . 2>/dev/null || pip install --no-build-isolation -e . 2>/dev/null || pip install -e .
fi
