#!/bin/sh
# Compiles the core library with mingw-w64, to see that nothing in it is tied to one system. Nothing is linked or run.
#   scripts/compile_for_windows.sh <folder for the objects>
set -eu
cd "$(dirname "$0")/.."
out=$1
compiler=x86_64-w64-mingw32-g++-posix

# Header-only libraries, in a folder of their own: the system's other headers are not for this target.
mkdir -p "$out/include"
for library in glm fmt toml++ stb CLI; do
  [ -d "/usr/include/$library" ] || { echo "the headers of $library are not installed" >&2; exit 1; }
  ln -sfn "/usr/include/$library" "$out/include/$library"
done

find src -name '*.cpp' | sort | while read -r source; do
  object="$out/$(echo "$source" | tr / _).o"
  [ "$object" -nt "$source" ] && continue
  echo "$source $object"
done | xargs -P "$(nproc)" -n 2 sh -c \
  "$compiler -std=c++20 -O1 -Wall -Wextra -Werror -DFMT_HEADER_ONLY -ffp-contract=off -Iinclude -isystem $out/include -c \"\$0\" -o \"\$1\""
echo "$(find "$out" -name '*.o' | wc -l) files compiled"
