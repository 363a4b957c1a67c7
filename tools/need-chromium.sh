#!/bin/sh
# Browser tests drive Debian's chromium; bring it through apt where it is missing and we may.
set -eu
[ -x /usr/bin/chromium ] && exit 0
root=""; [ "$(id -u)" = 0 ] || root="sudo -n"
if command -v apt-get >/dev/null && $root true 2>/dev/null; then
  $root apt-get update -q >/dev/null && DEBIAN_FRONTEND=noninteractive $root apt-get install -y -q chromium >/dev/null
else
  echo "fandle: /usr/bin/chromium is missing: install the package chromium, then try again" >&2; exit 1
fi
