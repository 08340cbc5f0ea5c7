#!/bin/sh
# Installs the built library into a temporary folder, builds the example that finds it there, runs it.
#   installed_library.sh SOURCE BUILD
set -eu
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
cmake --install "$2" --prefix "$work/installed" >/dev/null
cmake -G Ninja -S "$1/examples/own-game" -B "$work/build" -DCMAKE_PREFIX_PATH="$work/installed" \
  -DCMAKE_BUILD_TYPE=Release >/dev/null
cmake --build "$work/build" >/dev/null
"$work/build/own-game"
