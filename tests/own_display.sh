#!/bin/sh
# Runs a program on a display of its own:
#   tests/own_display.sh <the program> [its options]
set -eu
display=:$((90 + $$ % 800))
# Without -noreset the server begins anew when its first client has gone, and the next one finds none for a moment.
Xvfb "$display" -screen 0 1280x800x24 -nolisten tcp -noreset >/dev/null 2>&1 &
server=$!
trap 'kill $server 2>/dev/null || true' EXIT
export DISPLAY=$display
unset WAYLAND_DISPLAY
for attempt in $(seq 50); do xdotool getdisplaygeometry >/dev/null 2>&1 && break; sleep 0.2; done
"$@"
