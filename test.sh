#!/bin/sh
# Builds Vole with every compiler it is for and runs all tests:
#   ./test.sh           everything, as CI does
#   ./test.sh --quick   the release build alone
set -eu
cd "$(dirname "$0")"
. scripts/packages.sh

quick=no
case "${1:-}" in
  "") ;;
  --quick) quick=yes ;;
  *) echo "usage: ./test.sh [--quick]" >&2; exit 2 ;;
esac

started=$(date +%s)
step() { printf '\n== %s (%s s)\n' "$1" "$(($(date +%s) - started))"; }

# shellcheck disable=SC2086
need_packages $build_packages $test_packages

step "release: g++, warnings are errors"
cmake --preset release -DCMAKE_UNITY_BUILD=ON -DVOLE_WARNINGS_ARE_ERRORS=ON >build-release.log || { cat build-release.log; exit 1; }
rm -f build-release.log
cmake --build --preset release
ctest --test-dir build/release --output-on-failure -j 2
[ "$quick" = no ] || exit 0

step "clang: all tests under address and undefined-behaviour sanitizers; each loader fuzzed for a few seconds"
cmake -S . -B build/clang -G Ninja -DCMAKE_CXX_COMPILER=clang++ -DCMAKE_BUILD_TYPE=RelWithDebInfo \
  -DCMAKE_CXX_FLAGS_RELWITHDEBINFO="-O1 -g1 -DNDEBUG" \
  -DCMAKE_UNITY_BUILD=ON -DVOLE_FUZZ=ON -DVOLE_SANITIZE=address,undefined -DVOLE_WARNINGS_ARE_ERRORS=ON >/dev/null
cmake --build build/clang
ctest --test-dir build/clang --output-on-failure -j 2
tests/fuzz/run.sh build/clang/tests/vole_fuzz 3

step "Windows: games are built with mingw-w64 and played under wine, and end and look as the native ones do"
scripts/try_for_windows.sh build/windows build/release

step "browser: games as pages are played, and end and look as the native ones do"
scripts/try_for_web.sh build/web build/release

step "done"
