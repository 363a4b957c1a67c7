#!/bin/sh
# The pages' scripts are checked by tools from npm: bring Debian's node where it is missing and we may.
set -eu
command -v npm >/dev/null && exit 0
root=""; [ "$(id -u)" = 0 ] || root="sudo -n"
if command -v apt-get >/dev/null && $root true 2>/dev/null; then
  $root apt-get update -q >/dev/null 2>&1 || true
  DEBIAN_FRONTEND=noninteractive $root apt-get install -y -q --no-install-recommends nodejs npm >/dev/null 2>&1 && exit 0
fi
echo "fandle: no npm: install the packages nodejs and npm, then try again" >&2
exit 1
