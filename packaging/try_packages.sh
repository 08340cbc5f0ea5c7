#!/usr/bin/env bash
# Installs packages into a root folder that holds nothing but what they need, runs the program there
# from an empty folder, removes them, and says what is left.
#   try_packages.sh FOLDER-OF-PACKAGES
set -euo pipefail
packages=$(cd "$1" && pwd)
root=$(mktemp -d)
trap 'rm -rf "$root"' EXIT
mmdebstrap --quiet --variant=minbase --include="libboost-dev,libfmt-dev,libutf8proc-dev,libcairo2,libpangocairo-1.0-0,libedit2,libstdc++6,fonts-dejavu-core" bookworm "$root"
there() { chroot "$root" "$@"; }
listed() { find "$root" -xdev \( -type f -o -type l -o -type d \) | sort; }
listed >"$packages/before.txt"
mkdir "$root/packages"
cp "$packages"/*.deb "$root/packages"
there sh -c 'dpkg -i /packages/*.deb >/dev/null'
there sh -c 'mkdir /tmp/empty && cd /tmp/empty && ninepegs check tic-tac-toe && ninepegs count chess --depth 3 &&
  printf "a\nb\nquit\n" | ninepegs play connect-four --second search:nodes=1000 >play.txt && head -20 play.txt &&
  ninepegs book othello --out book && ls book && rm -rf /tmp/empty'
there dpkg --purge ninepegs ninepegs-doc libninepegs-dev >/dev/null
rm -rf "$root/packages"
listed >"$packages/after.txt"
if diff "$packages/before.txt" "$packages/after.txt" | grep '^[<>]' | grep -vE "/(var/(lib/dpkg|log|cache)|run)(/|$)"; then
  echo "that is left of the packages, or gone with them"
  exit 1
fi
echo "installed, used and removed: nothing is left"
