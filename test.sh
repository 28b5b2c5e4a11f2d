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

step "packages, for the three systems beside each other: for Linux they are played where nothing is installed, for Windows under wine, as \
pages in a browser, and end and look as the native ones do"
for system in linux windows web; do
  scripts/try_for_$system.sh build/$system build/release >build/$system.log 2>&1 &
  eval "work_$system=$!"
done
failed=""
for system in linux windows web; do
  eval "wait \$work_$system" || failed="$failed $system"
  step "$system"
  cat build/$system.log
done
[ -z "$failed" ] || { echo "failed:$failed" >&2; exit 1; }

step "done"
