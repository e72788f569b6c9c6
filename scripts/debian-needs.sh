#!/bin/sh
# What the tests need beside Python: Chromium to drive the interface, Pango to print, poppler to read prints back.
set -eu
packages="chromium libpango-1.0-0 libpangoft2-1.0-0 libharfbuzz-subset0 poppler-utils"
missing=""
for package in $packages; do
  dpkg-query -W -f='${Status}' "$package" 2>/dev/null | grep -q 'ok installed' || missing="$missing $package"
done
[ -z "$missing" ] && exit 0
if [ "$(id -u)" = 0 ] && command -v apt-get >/dev/null; then
  apt-get update -qq
  # shellcheck disable=SC2086
  DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends $missing >/dev/null
else
  echo "The tests need these packages; run:  sudo apt-get install --no-install-recommends$missing" >&2
  exit 1
fi
