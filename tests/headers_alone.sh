#!/bin/sh
# Reads each public header by itself, twice over, and stops at warnings. A header that is the first include of some source was read
# so when that was compiled.
#   headers_alone.sh <the repository> <compiler>
set -eu
cd "$1"
first=$(mktemp)
trap 'rm -f "$first" "$first.sources"*' EXIT
for source in $(find src hosts -name '*.cpp'); do
  sed -n '/^#include "vole\//{s/^#include "\(.*\)"/\1/p;q}' "$source"
done | sort -u >"$first"
for header in $(cd include && find vole -name '*.hpp' | sort); do
  grep -qx "$header" "$first" || printf '%s\n' "$header"
done >"$first.sources"
xargs -P "$(nproc)" -I{} sh -c 'printf "#include \"%s\"\n#include \"%s\"\n" {} {} |
  '"$2"' -std=c++20 -Iinclude -Wall -Wextra -Wpedantic -Wconversion -Wshadow -Werror -fsyntax-only -x c++ - ||
  { echo "{} does not compile alone" >&2; exit 255; }' <"$first.sources"
echo "$(wc -l <"$first.sources") headers were read alone; $(wc -l <"$first") others come first in a source"
