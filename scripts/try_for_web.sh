#!/bin/sh
# Builds the allotment and a new game for browsers, opens their pages in one and plays there; the shipped run must end in
# the same state, to the last bit, and show the same picture as the native program.
#   scripts/try_for_web.sh <folder to work in> <native build folder>
set -eu
cd "$(dirname "$0")/.."
mkdir -p "$1"
out=$(cd "$1" && pwd)
native=$(cd "$2" && pwd)
vole=$native/cli/vole
if ! command -v chromedriver >/dev/null || ! command -v em++ >/dev/null; then
  echo "SKIPPED: pages were not tried, since there is no emscripten or no chromedriver here" >&2
  exit 0
fi
if ! said=$(python3 tests/web/browser.py 2>&1); then
  printf '%s\n' "$said" | tail -n 5 >&2
  echo "SKIPPED: pages were not tried, since no browser can be started here" >&2
  exit 0
fi

XDG_CACHE_HOME=$out/cache
export XDG_CACHE_HOME
"$vole" setup web

# What collides ends in the same bits here as everywhere.
libraries=$(dirname "$(find "$out/cache" -name libvole.a)")
NODE_PATH=${NODE_PATH:+$NODE_PATH:}/usr/share/nodejs em++ -std=c++20 -O2 -DNDEBUG -ffp-contract=off -fwasm-exceptions -Iinclude \
  -Iexamples/towpath/src -I"$native/examples/towpath/towpath_scenes_names" \
  -Iexamples/milkround/src -I"$native/examples/milkround/milkround_scenes_names" -isystem "$libraries/../headers" \
  tests/web/same_bits.cpp examples/towpath/src/towpath.cpp examples/milkround/src/end.cpp \
  examples/milkround/src/milkround.cpp examples/milkround/src/pause.cpp examples/milkround/src/round.cpp examples/milkround/src/title.cpp examples/milkround/src/village.cpp \
  "$libraries/libvole.a" -sSINGLE_FILE -sALLOW_MEMORY_GROWTH=1 \
  --embed-file examples/towpath@/towpath --embed-file examples/milkround@/milkround -o "$out/same_bits.js"
node "$out/same_bits.js" /towpath 36000 /milkround >"$out/same_bits.web"
"$native/tests/same_bits" examples/towpath 36000 examples/milkround | diff - "$out/same_bits.web"
cat "$out/same_bits.web"

mkdir -p "$out/games"
rm -rf "$out/games/allotment" "$out/games/fresh"
cp -r examples/allotment "$out/games/allotment"
"$vole" new "$out/games/fresh" >/dev/null
for game in allotment fresh; do
  "$vole" package "$out/games/$game" --target web -o "$out/packages"
done

rm -rf "$out/pages"
mkdir -p "$out/pages"
python3 tests/web/pages_test.py "$vole" "$native/examples/allotment/allotment" \
  "$out/games/allotment" "$out/games/allotment/build/web/allotment.js" \
  "$out/games/fresh" "$out/games/fresh/build/web/fresh.js" "$out/pages"
