#!/bin/sh
# Installs what was built into a temporary folder, builds the example that finds the library there and
# runs it; the program finds its sheets there, and holds no path of where it was built.
#   installed_library.sh SOURCE BUILD
set -eu
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
cmake --install "$2" --prefix "$work/installed" >/dev/null
cmake -G Ninja -S "$1/examples/own-game" -B "$work/build" -DCMAKE_PREFIX_PATH="$work/installed" \
  -DCMAKE_BUILD_TYPE=Release >/dev/null
cmake --build "$work/build" >/dev/null
"$work/build/own-game"
program="$work/installed/bin/ninepegs"
[ -x "$program" ] || exit 0
if grep -qaF "$1" "$program"; then
  echo "the program holds the path $1"
  exit 1
fi
mkdir "$work/empty"
cd "$work/empty"
"$program" check tic-tac-toe >/dev/null
