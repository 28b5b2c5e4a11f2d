#!/bin/sh
# Drives the game's window with real key events through title, level and finish, on the display that there is:
#   tests/own_display.sh tests/window_test.sh <the program allotment> <its folder> <folder for pictures>
# With GL and, a second time, without it. Keys from outside arrive a few ticks early or late, so the levels are replaced by
# flat ones, on which that does not matter.
set -eu
program=$1
folder=$2
pictures=$3
mkdir -p "$pictures"
work=$(mktemp -d)
cp -r "$folder/game.toml" "$folder/controls.toml" "$folder/kinds.toml" "$folder/assets" "$folder/levels" "$work"
cp "$program" "$work/allotment"
game=$work/allotment
{
  printf 'sky = "#2d2b45"\ntileset = "earth"\nletters = { "." = "", "T" = "turf" }\n[[layers]]\nname = "sky"\npicture = "sky"\nparallax = [0, 0]\n'
  printf '[[layers]]\nname = "ground"\nrows = [\n'
  for row in 1 2 3 4 5 6 7 8 9 10 11; do printf '  "........................",\n'; done
  printf '  "TTTTTTTTTTTTTTTTTTTTTTTT",\n]\n[[layers]]\nname = "things"\n'
  printf '[[places]]\nkind = "vole"\ncell = [2, 10]\n[[places]]\nkind = "bulb"\ncell = [5, 10]\n[[places]]\nkind = "shed"\ncell = [20, 10]\n'
  printf '[[places]]\nname = "before the shed"\ncell = [15, 10]\n'
  printf '[[zones]]\nname = "doorstep"\narea = [288, 116, 31, 60]\n'
} >"$work/levels/beds.level.toml"
{
  printf 'tileset = "cellar"\nletters = { "." = "", "W" = "wall" }\n[[layers]]\nname = "ground"\nrows = [\n'
  for row in 1 2 3 4 5 6 7 8 9 10 11; do printf '  "........................",\n'; done
  printf '  "WWWWWWWWWWWWWWWWWWWWWWWW",\n]\n[[layers]]\nname = "things"\n'
  printf '[[places]]\nkind = "vole"\ncell = [2, 10]\nname = "foot of the ladder"\n[[places]]\nkind = "gate"\ncell = [12, 10]\nname = "gate"\n'
  printf '[[places]]\nkind = "lever"\ncell = [6, 10]\nlever = { gate = "gate" }\n'
  printf '[[zones]]\nname = "way up"\narea = [0, 116, 12, 60]\n'
  printf '[[zones]]\nname = "way out"\narea = [320, 116, 24, 60]\n'
} >"$work/levels/cellar.level.toml"
trap 'rm -rf "$work"' EXIT

# How many colours a picture of the screen has: a black or empty window has one or two.
colours() { identify -format '%k' "$1"; }
shot() { import -window root "$pictures/$1.png"; }
# Keys go in by XTest, as from a real keyboard.
press() { xdotool keydown "$1"; sleep "${2:-0.1}"; xdotool keyup "$1"; }

for way in gl plain; do
  if [ "$way" = plain ]; then SDL_VIDEO_X11_FORCE_EGL=1; SDL_OPENGL_LIBRARY=/nowhere/libGL.so; export SDL_OPENGL_LIBRARY; unset SDL_VIDEO_X11_FORCE_EGL; fi
  "$game" --scale 4 --record "$pictures/$way.run" >"$pictures/$way.log" 2>&1 &
  player=$!
  timeout 30 xdotool search --sync --onlyvisible --name 'The Allotment' >/dev/null || { cat "$pictures/$way.log"; echo "no window"; exit 1; }
  sleep 1
  shot "$way-title"
  press Return
  sleep 1
  press Right 0.7
  press space 0.3
  shot "$way-beds"
  press Escape
  sleep 0.5
  shot "$way-pause"
  press Return
  sleep 1
  shot "$way-title-again"
  if [ "$way" = gl ]; then
    # The whole way: to the right until the shed is reached, and past the lever and its gate out of the cellar.
    press Return
    sleep 0.9
    press Right 6
    sleep 1
    shot "$way-cellar"
    press Right 6
    sleep 1
    shot "$way-finish"
  fi
  kill "$player"  # asks for the end: what was played is saved, and the exit code tells of the signal
  code=0
  wait "$player" || code=$?
  [ "$code" = 143 ] || { cat "$pictures/$way.log"; echo "the game ended with $code"; exit 1; }
  for picture in title beds pause title-again; do
    count=$(colours "$pictures/$way-$picture.png")
    [ "$count" -gt 12 ] || { echo "$way-$picture.png has only $count colours"; exit 1; }
  done
  # The keys arrived: start, walk and jump are in what was recorded.
  for word in 'start +' 'walk 100' 'jump +' 'pause +'; do
    grep -q "$word" "$pictures/$way.run" || { echo "\"$word\" was not recorded"; cat "$pictures/$way.run"; exit 1; }
  done
  "$game" --headless --replay "$pictures/$way.run" --shot "$pictures/$way-end.png" >"$pictures/$way.log"
  cat "$pictures/$way.log"
  grep -q 'as recorded' "$pictures/$way.log"
  [ "$way" = plain ] || grep -q 'end.png: finish at tick' "$pictures/$way.log" || { echo "the finish was not reached"; exit 1; }
done
