#!/usr/bin/env bash
# Makes the Debian packages into build/packages, has them looked over by lintian, and tries them in a
# root folder of their own: installed there, used from an empty folder, removed, nothing left.
#   package.sh            from the last commit
#   package.sh --no-root  without the trial in a root folder
set -euo pipefail
cd "$(dirname "$0")/.."
out=$PWD/build/packages
version=$(sed -n 's/^project(NinePegs VERSION \([0-9.]*\).*/\1/p' CMakeLists.txt)
tree=$out/ninepegs-$version
rm -rf "$out"
mkdir -p "$out"
git archive --prefix="ninepegs-$version/" HEAD | tar -x -C "$out"
cp -r packaging/debian "$tree/debian"
(cd "$tree" && DEB_BUILD_OPTIONS="parallel=$(nproc) noautodbgsym" dpkg-buildpackage -b -us -uc -nc >../build.log 2>&1) ||
  { tail -n 60 "$out/build.log"; exit 1; }
rm -rf "$tree"
(cd "$out" && lintian --allow-root --fail-on error,warning --suppress-tags-from-file "$OLDPWD/packaging/lintian.txt" ./*.changes)
ls -l "$out"/*.deb
[ "${1:-}" = "--no-root" ] || packaging/try_packages.sh "$out"
