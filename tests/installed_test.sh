#!/bin/sh
# Installs the build tree given first into a new folder and builds a consumer against it: with find_package and with
# pkg-config, and runs both. Further words are flags for the compiler.
set -eu
build=$1
source=$2
shift 2
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT

cmake --install "$build" --prefix "$work/installed" >"$work/log" || { cat "$work/log"; exit 1; }

cmake -S "$source/tests/consumer" -B "$work/consumer" -DCMAKE_PREFIX_PATH="$work/installed" -DCMAKE_CXX_FLAGS="$*"
cmake --build "$work/consumer"
"$work/consumer/consumer"

# Also when all of it is moved elsewhere afterwards.
mv "$work/installed" "$work/moved"
PKG_CONFIG_PATH=$(dirname "$(find "$work/moved" -name vole.pc)")
export PKG_CONFIG_PATH
flags=$(pkg-config --cflags --libs vole)
# shellcheck disable=SC2086
"${CXX:-c++}" -std=c++20 "$@" "$source/tests/consumer/main.cpp" $flags -o "$work/by_pkg_config"
"$work/by_pkg_config"
mv "$work/moved" "$work/installed"

"$work/installed/bin/vole" new "$work/game"
grep -q 'find_package(vole' "$work/game/CMakeLists.txt"
cmake -S "$work/game" -B "$work/game/build" -DCMAKE_PREFIX_PATH="$work/installed" -DCMAKE_CXX_FLAGS="$*"
cmake --build "$work/game/build"
"$work/game/build/game" --headless --ticks 30

# A clip that was renamed in its file does not compile any more, and the message has its name.
test -f "$work/installed/share/vole/schemas/sheet.schema.json"
sed -i 's/^\[clips.shine\]/[clips.gleam]/' "$work/game/assets/berry.sheet.toml"
if cmake --build "$work/game/build" >"$work/log" 2>&1; then
  echo "a clip that is gone still compiles" >&2
  exit 1
fi
grep -q "shine" "$work/log"
