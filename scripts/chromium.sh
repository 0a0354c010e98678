#!/usr/bin/env bash
# The browser the tests drive: Debian's package.
set -eu
if command -v chromium >/dev/null 2>&1 || command -v chromium-browser >/dev/null 2>&1; then
  exit 0
fi
as_root=
if [ "$(id -u)" != 0 ]; then
  command -v sudo >/dev/null 2>&1 || { echo "Chromium is missing. As root: apt-get install chromium" >&2; exit 1; }
  as_root=sudo
fi
echo "Installing Chromium for the browser tests"
export DEBIAN_FRONTEND=noninteractive
$as_root apt-get update -qq
$as_root apt-get install -y -qq --no-install-recommends chromium >/dev/null
