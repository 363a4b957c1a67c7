#!/bin/sh
# Make .venv if it is not there; bring Debian's venv module where it is missing and we may.
set -eu
PYTHON=${PYTHON:-python3}
command -v "$PYTHON" >/dev/null || { echo "fandle: no $PYTHON: install Python 3.11 or newer" >&2; exit 1; }
"$PYTHON" -c 'import sys; sys.exit(sys.version_info < (3, 11))' || {
  echo "fandle: $PYTHON is older than 3.11: install a newer one, or set PYTHON=python3.12 and the like" >&2; exit 1; }
[ -x .venv/bin/python ] && exit 0
"$PYTHON" -c 'import venv' 2>/dev/null || {
  root=""; [ "$(id -u)" = 0 ] || root="sudo -n"
  if command -v apt-get >/dev/null && $root true 2>/dev/null; then
    $root apt-get update -q >/dev/null && DEBIAN_FRONTEND=noninteractive $root apt-get install -y -q python3-venv >/dev/null
  else
    echo "fandle: Python's venv module is missing: install the package python3-venv, then try again" >&2; exit 1
  fi
}
"$PYTHON" -m venv --without-pip .venv
