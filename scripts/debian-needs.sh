#!/bin/sh
# What the tests need beside Python: headless Chromium to drive the interface, Pango to print, poppler to read
# prints back. The shell of Chromium that has no window is the lighter one; the whole browser will do.
set -eu
has() { dpkg-query -W -f='${Status}' "$1" 2>/dev/null | grep -q 'ok installed'; }
missing=""
for package in libpango-1.0-0 libpangoft2-1.0-0 libharfbuzz-subset0 poppler-utils; do
  has "$package" || missing="$missing $package"
done
browser=chromium-headless-shell
has "$browser" && browser=""
[ -z "$missing$browser" ] && exit 0
if [ "$(id -u)" = 0 ] && command -v apt-get >/dev/null; then
  install() { DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "$@" >/dev/null; }
  apt-get update -qq || has chromium
  # shellcheck disable=SC2086
  [ -z "$missing" ] || install $missing
  [ -z "$browser" ] || install "$browser" || has chromium || install chromium
else
  [ -z "$missing" ] && has chromium && exit 0
  has chromium && browser=""
  echo "The tests need these packages; run:  sudo apt-get install --no-install-recommends$missing $browser" >&2
  exit 1
fi
