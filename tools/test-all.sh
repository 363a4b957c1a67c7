#!/bin/sh
# Unit tests on every Python from 3.11 to 3.14 that is on this machine, or on those in $PYTHONS, each in an environment
# of its own (.venv-3.13 …).
set -u
uv=.venv/bin/uv
failed=""
for version in ${PYTHONS:-3.11 3.12 3.13 3.14}; do
  python=$("$uv" python find --no-python-downloads "$version" 2>/dev/null) || {
    echo "Python $version is not here"; continue; }
  env=.venv-$version
  "$uv" venv --quiet --clear --python "$python" "$env" \
    && "$uv" pip install --quiet --python "$env/bin/python" --no-deps -r requirements/runtime.txt -r requirements/installers.txt \
    && "$uv" pip install --quiet --python "$env/bin/python" --no-deps -r requirements/test.txt \
    && "$uv" pip install --quiet --python "$env/bin/python" --no-deps --no-build-isolation -e . \
    && "$env/bin/python" -m fandle.work.warm \
    && "$env/bin/python" -m pytest -q -n 2 --dist worksteal -m "not browser" || failed="$failed $version"
done
"$uv" pip install --quiet --python .venv/bin/python --no-deps --no-build-isolation -e .
[ -z "$failed" ] || { echo "failed on:$failed" >&2; exit 1; }
