#!/bin/sh
# Drives the game's window with real key events through title, level and back, on a display of its own:
#   tests/window_test.sh <the program allotment> <folder for pictures>
# With GL and, a second time, without it.
set -eu
game=$1
pictures=$2
mkdir -p "$pictures"
display=:$((90 + $$ % 400))
Xvfb "$display" -screen 0 1280x800x24 -nolisten tcp >/dev/null 2>&1 &
server=$!
trap 'kill $server 2>/dev/null || true' EXIT
export DISPLAY=$display
unset WAYLAND_DISPLAY
sleep 2

# How many colours a picture of the screen has: a black or empty window has one or two.
colours() { identify -format '%k' "$1"; }
shot() { import -window root "$pictures/$1.png"; }
# Keys go in by XTest, as from a real keyboard.
press() { xdotool keydown "$1"; sleep "${2:-0.1}"; xdotool keyup "$1"; }

for way in gl plain; do
  if [ "$way" = plain ]; then SDL_VIDEO_X11_FORCE_EGL=1; SDL_OPENGL_LIBRARY=/nowhere/libGL.so; export SDL_OPENGL_LIBRARY; unset SDL_VIDEO_X11_FORCE_EGL; fi
  "$game" --scale 4 --record "$pictures/$way.run" >"$pictures/$way.log" 2>&1 &
  player=$!
  sleep 2
  shot "$way-title"
  press Return
  sleep 0.5
  press Right 0.7
  press space 0.3
  shot "$way-beds"
  press Escape
  sleep 0.5
  shot "$way-title-again"
  if [ "$way" = gl ]; then
    # The whole way: to the right, jumping all the time; who falls into a ditch begins again.
    press Return
    sleep 0.3
    xdotool keydown Right
    for jump in $(seq 60); do press Up 0.36; sleep 0.12; done
    xdotool keyup Right
    sleep 0.3
    shot "$way-finish"
  fi
  kill "$player"  # asks for the end, as closing the window does
  wait "$player" || { cat "$pictures/$way.log"; echo "the game ended with $?"; exit 1; }
  for picture in title beds title-again; do
    count=$(colours "$pictures/$way-$picture.png")
    [ "$count" -gt 12 ] || { echo "$way-$picture.png has only $count colours"; exit 1; }
  done
  # The keys arrived: start, walk and jump are in what was recorded.
  for word in 'start +' 'walk 100' 'jump +' 'title +'; do
    grep -q "$word" "$pictures/$way.run" || { echo "\"$word\" was not recorded"; cat "$pictures/$way.run"; exit 1; }
  done
  "$game" --headless --replay "$pictures/$way.run" --shot "$pictures/$way-end.png" >"$pictures/$way.log"
  cat "$pictures/$way.log"
  grep -q 'as recorded' "$pictures/$way.log"
  [ "$way" = plain ] || grep -q 'end.png: finish at tick' "$pictures/$way.log" || { echo "the finish was not reached"; exit 1; }
done
