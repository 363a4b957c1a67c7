#!/bin/sh
# Browser tests drive Debian's headless Chromium: bring it through apt where it is missing and we may.
# The shell alone draws pages in half the processor time of the whole browser, which does as well.
set -eu
command -v chromium-headless-shell >/dev/null && exit 0
root=""; [ "$(id -u)" = 0 ] || root="sudo -n"
bring() { DEBIAN_FRONTEND=noninteractive $root apt-get install -y -q "$1" >/dev/null 2>&1; }
if command -v apt-get >/dev/null && $root true 2>/dev/null; then
  bring chromium-headless-shell || { $root apt-get update -q >/dev/null 2>&1 && bring chromium-headless-shell; } && exit 0
  command -v chromium >/dev/null || bring chromium || true
fi
command -v chromium >/dev/null && exit 0
echo "fandle: no headless Chromium: install the package chromium-headless-shell (or chromium), then try again" >&2
exit 1
