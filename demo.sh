#!/bin/sh
# Builds Vole and shows the demo:
#   ./demo.sh              a window to play in, where there is a display; else as below
#   ./demo.sh --headless   plays the shipped run without a window and leaves pictures in shots/
set -eu
cd "$(dirname "$0")"
. scripts/packages.sh

headless=no
case "${1:-}" in
  "") [ -n "${DISPLAY:-}${WAYLAND_DISPLAY:-}" ] || headless=yes ;;
  --headless) headless=yes ;;
  *) echo "usage: ./demo.sh [--headless]" >&2; exit 2 ;;
esac

# shellcheck disable=SC2086
need_packages $build_packages

echo "building ..."
log=$(mktemp)
{ cmake -S . -B build/demo -G Ninja -DVOLE_TESTS=OFF -DCMAKE_UNITY_BUILD=ON && cmake --build build/demo; } >"$log" 2>&1 || { cat "$log" >&2; exit 1; }
rm -f "$log"
game=build/demo/examples/allotment/allotment
vole=build/demo/cli/vole

if [ "$headless" = no ]; then
  echo "(Two more games: build/demo/examples/milkround/milkround is driven with the arrow keys, Space rings the bell;"
  echo " build/demo/examples/towpath/towpath jumps with Space.)"
  echo "Arrow keys or A and D walk, Space jumps, Down or S digs, Enter starts, Escape pauses, F11 fills the screen."
  exec "$game"
fi

mkdir -p shots
echo "playing the shipped run without a window ..."
"$game" --headless --replay examples/allotment/recordings/harvest.run \
  --shot shots/title.png@60 --shot shots/beds.png@230 --shot shots/planks.png@600 --shot shots/door.png@1310 --shot shots/cellar.png@1700 \
  --shot shots/finish.png
"$game" --headless --replay examples/allotment/recordings/harvest.run --xray --shot shots/xray.png@400 >/dev/null
build/demo/examples/towpath/towpath --headless --replay examples/towpath/recordings/home.run \
  --shot shots/towpath.png@3500 --shot shots/jetty.png@1100 >/dev/null
"$vole" check examples/allotment
build/demo/examples/milkround/milkround --headless --replay examples/milkround/recordings/round.run \
  --shot shots/milkround-title.png@60 --shot shots/milkround.png@1100 --shot shots/milkround-end.png >/dev/null
"$vole" check examples/towpath
"$vole" check examples/milkround
"$vole" preview examples/allotment/assets/vole.sheet.toml -o shots/sheet.png >/dev/null
"$vole" preview examples/allotment/assets/vole.sheet.toml -o shots/vole.gif >/dev/null
"$vole" preview examples/allotment/assets/vole.sheet.toml --show rules -o shots/rules.png >/dev/null
"$vole" preview examples/allotment/assets/earth.tileset.toml -o shots/tileset.png >/dev/null
"$vole" preview examples/allotment/assets/cellar.tileset.toml --show edges -o shots/edges.png >/dev/null
"$vole" preview examples/allotment/levels/beds.level.toml -o shots/level.png >/dev/null
cat <<END

pictures:
  shots/title.png     the title, at dusk
  shots/beds.png      the vole sets out over the beds
  shots/planks.png    high up on the planks
  shots/door.png      the shed opens, and a hedgehog goes out for the night
  shots/cellar.png    below the shed, by lantern light: the lever has raised the gate
  shots/finish.png    every bulb is in the shed
  shots/milkround.png a game seen from above: a milk float, dogs and a postwoman on the lanes of a village;
                      shots/milkround-title.png and shots/milkround-end.png: how it begins and ends
  shots/towpath.png   the third game: an endless run, laid from pieces; shots/jetty.png: another of them
  shots/xray.png      bodies, solid tiles and pivots drawn over the picture (--xray)
  shots/sheet.png     the vole's frames and clips (vole preview)
  shots/vole.gif      its clips at their real speed (vole preview)
  shots/rules.png     which of them is played when (vole preview --show rules)
  shots/tileset.png   tiles by name, solid ones with a rim (vole preview)
  shots/edges.png     which tile stands where in a wall that is painted (vole preview --show edges)
  shots/level.png     the whole level with its places (vole preview)
END
