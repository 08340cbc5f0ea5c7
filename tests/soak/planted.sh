#!/usr/bin/env bash
# Puts faults into a copy of the sources, one at a time, and soaks: each must be found. What is
# planted are shortcuts of the compiler that are taken where they are not the same.
#   planted.sh [SHEETS] [NAME ...]    at most so many drawn sheets for each, 2000 if left out
set -euo pipefail
root="$(cd "$(dirname "$0")/../.." && pwd)"
most="${1:-2000}"
shift || true
copy="$root/build/planted"
rm -rf "$copy/source" && mkdir -p "$copy/source"
tar -C "$root" --exclude=./build --exclude=./.git -cf - . | tar -C "$copy/source" -xmf -
names=("$@")
[ "${#names[@]}" -gt 0 ] ||
  for patch in "$root"/tests/soak/planted/*.patch; do names+=("$(basename "$patch" .patch)"); done
missed=0
for name in "${names[@]}"; do
  patch -s -p1 -d "$copy/source" <"$copy/source/tests/soak/planted/$name.patch"
  cmake -S "$copy/source" -B "$copy/build" -G Ninja -DCMAKE_BUILD_TYPE=Release \
    -DNINEPEGS_BENCH=OFF >/dev/null
  cmake --build "$copy/build" -- ninepegs_soak >"$copy/build.log"
  said="$("$copy/build/tests/ninepegs_soak" --seed 1 --many "$most" --first || true)"
  if grep -q ": 0 found" <<<"$said"; then
    missed=$((missed + 1))
    echo "MISSED  $name: $(head -1 "$copy/source/tests/soak/planted/$name.patch")"
  else
    echo "found at sheet $(sed -n 's/^drawn \([0-9]*\) of seed.*/\1/p' <<<"$said" | sort -n | head -1)  $name: $(head -1 "$copy/source/tests/soak/planted/$name.patch")"
  fi
  patch -s -R -p1 -d "$copy/source" <"$copy/source/tests/soak/planted/$name.patch"
done
[ "$missed" -eq 0 ]
