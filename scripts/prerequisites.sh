#!/usr/bin/env bash
# Says plainly which prerequisite is missing or too old. Usage: prerequisites.sh PYTHON
set -u
python=${1:-python3}
fail=0

say() {
  echo "Entretoile needs $1. $2" >&2
  fail=1
}

if ! command -v "$python" >/dev/null 2>&1; then
  say "Python 3.11 or newer" "No \"$python\" was found. Install Python, or name yours: make demo PYTHON=/path/to/python3"
elif ! "$python" -c 'import sys; sys.exit(sys.version_info < (3, 11))'; then
  say "Python 3.11 or newer" "\"$python\" is $("$python" -V 2>&1). Name a newer one: make demo PYTHON=python3.11"
elif ! "$python" -c 'import venv, ensurepip' 2>/dev/null; then
  say "Python's venv module" "On Debian: apt-get install python3-venv"
fi

if ! command -v node >/dev/null 2>&1; then
  say "Node 20.19 or newer" "No \"node\" was found. Install Node.js with npm."
elif [ "$(node -p '(([a, b]) => a > 20 || (a === 20 && b >= 19))(process.versions.node.split(".").map(Number))')" != true ]; then
  say "Node 20.19 or newer" "This is Node $(node --version). Install a newer one."
elif ! command -v npm >/dev/null 2>&1; then
  say "npm" "It comes with Node.js."
fi

exit $fail
