#!/usr/bin/env bash
# The browser the tests drive, and the tools that measure printed papers: Debian's packages.
set -eu
wanted=
# The one without windows takes a third less of the processor; any of them will do.
command -v chromium-headless-shell >/dev/null 2>&1 || command -v chromium >/dev/null 2>&1 ||
  command -v chromium-browser >/dev/null 2>&1 || wanted="chromium-headless-shell"
command -v pdftoppm >/dev/null 2>&1 || wanted="$wanted poppler-utils"
[ -n "$wanted" ] || exit 0
as_root=
if [ "$(id -u)" != 0 ]; then
  command -v sudo >/dev/null 2>&1 || { echo "Missing for the tests. As root: apt-get install $wanted" >&2; exit 1; }
  as_root=sudo
fi
echo "Installing for the tests:$wanted"
export DEBIAN_FRONTEND=noninteractive
$as_root apt-get update -qq
$as_root apt-get install -y -qq --no-install-recommends $wanted >/dev/null
