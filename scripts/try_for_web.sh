#!/bin/sh
# Compiles the core library and the allotment to WebAssembly and replays the shipped run under node: the same state, to
# the last bit, and the same picture as the native program draws.
#   scripts/try_for_web.sh <folder for the objects> <native build folder>
set -eu
cd "$(dirname "$0")/.."
out=$1
native=$2
game=examples/allotment

# Header-only libraries, in a folder of their own: the system's other headers are not for this target.
mkdir -p "$out/include" "$out/objects"
for library in glm fmt toml++ stb CLI; do
  [ -d "/usr/include/$library" ] || { echo "the headers of $library are not installed" >&2; exit 1; }
  ln -sfn "/usr/include/$library" "$out/include/$library"
done

NODE_PATH=/usr/share/nodejs${NODE_PATH:+:$NODE_PATH}
export NODE_PATH

names=$native/$game/allotment_scenes_names
flags="-std=c++20 -O1 -fexceptions -ffp-contract=off -DFMT_HEADER_ONLY -Iinclude -I$game/src -I$names -isystem $out/include"
# The first call fills emscripten's cache, which two at a time must not do.
echo 'int main() {}' >"$out/empty.cpp"
em++ $flags -c "$out/empty.cpp" -o "$out/empty.o"
{ find src $game/src -name '*.cpp' ! -name main.cpp; echo tests/web/main.cpp; } | sort | while read -r source; do
  object="$out/objects/$(echo "$source" | tr / _).o"
  newest=$(find include src "$game/src" tests/web -newer "$object" -name '*.[hc]pp' 2>/dev/null | head -n 1)
  [ -f "$object" ] && [ -z "$newest" ] && continue
  echo "$source $object"
done | xargs -r -P "$(nproc)" -n 2 sh -c "em++ $flags -c \"\$0\" -o \"\$1\""

em++ -O2 -fexceptions -sNODERAWFS=1 -sALLOW_MEMORY_GROWTH=1 -sEXIT_RUNTIME=1 "$out"/objects/*.o -o "$out/allotment.js"
ls -l "$out/allotment.wasm" | awk '{ printf "%.1f MB of WebAssembly\n", $5 / 1e6 }'

run() { # program, picture
  picture=$1
  shift
  "$@" --headless --replay $game/recordings/harvest.run --shot "$picture@600"
}
run "$out/native.png" "$native/$game/allotment" >"$out/native.txt"
# This emscripten's loader and newer nodes disagree about fetch.
run "$out/web.png" node --no-experimental-fetch "$out/allotment.js" $game/game.toml >"$out/web.txt"
tail -n 1 "$out/web.txt"
[ "$(tail -n 1 "$out/web.txt")" = "$(tail -n 1 "$out/native.txt")" ] || { cat "$out/native.txt"; echo "the run differs" >&2; exit 1; }
cmp "$out/native.png" "$out/web.png"
