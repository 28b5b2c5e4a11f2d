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

"$work/installed/bin/vole" new "$work/hedge"
grep -q 'find_package(vole' "$work/hedge/CMakeLists.txt"
cmake -S "$work/hedge" -B "$work/hedge/build" -DCMAKE_PREFIX_PATH="$work/installed" -DCMAKE_CXX_FLAGS="$*"
cmake --build "$work/hedge/build"
"$work/hedge/build/hedge" --headless --ticks 30

# Where g++ has read vole/window.hpp already, it does not read it again, but compiles anew when it has changed.
stamp=$(find "$work/installed" -path '*/ready/stamp')
if [ -n "$stamp" ]; then
  if grep -rq 'vole/window.hpp' "$work/hedge/build" --include=main.cpp.o.d; then
    echo "vole/window.hpp is read again" >&2
    exit 1
  fi
  touch "$stamp"
  cmake --build "$work/hedge/build" | grep -q 'main.cpp.o'
  cmake -S "$work/hedge" -B "$work/hedge/other" -DCMAKE_PREFIX_PATH="$work/installed" -DCMAKE_BUILD_TYPE=RelWithDebInfo
  cmake --build "$work/hedge/other"
fi

# A clip that was renamed in its file does not compile any more, and the message has its name.
test -f "$work/installed/share/vole/schemas/sheet.schema.json"
sed -i 's/^\[clips.shine\]/[clips.gleam]/' "$work/hedge/assets/berry.sheet.toml"
if cmake --build "$work/hedge/build" >"$work/log" 2>&1; then
  echo "a clip that is gone still compiles" >&2
  exit 1
fi
grep -q "shine" "$work/log"

# Man pages and completions lie where systems look for them, and man takes the pages as they are.
for page in vole vole-new vole-check vole-preview vole-atlas vole-schema vole-package vole-setup; do
  test -f "$work/installed/share/man/man1/$page.1"
done
test -f "$work/installed/share/bash-completion/completions/vole"
test -f "$work/installed/share/zsh/site-functions/_vole"
test -f "$work/installed/share/fish/vendor_completions.d/vole.fish"
