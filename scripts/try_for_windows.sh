#!/bin/sh
# Builds the allotment and a new game for Windows and plays them under wine; the shipped run must end in the same state, to
# the last bit, and show the same picture as the native program.
#   scripts/try_for_windows.sh <folder to work in> <native build folder>
set -eu
cd "$(dirname "$0")/.."
mkdir -p "$1"
out=$(cd "$1" && pwd)
native=$(cd "$2" && pwd)
vole=$native/cli/vole

if ! command -v x86_64-w64-mingw32-g++-posix >/dev/null; then
  echo "SKIPPED: nothing was built for Windows, since mingw-w64 is not here" >&2
  exit 0
fi
XDG_CACHE_HOME=$out/cache
CXXFLAGS=-Werror
export XDG_CACHE_HOME CXXFLAGS
"$vole" setup windows

mkdir -p "$out/games"
rm -rf "$out/games/allotment" "$out/games/fresh" "$out/packages"
cp -r examples/allotment "$out/games/allotment"
"$vole" new "$out/games/fresh" >/dev/null
# The other main function that programs for Windows may have.
sed -i 's/int main(int argc, char\*\* argv)/int wmain(int argc, wchar_t** argv)/' "$out/games/fresh/src/main.cpp"
grep -q wmain "$out/games/fresh/src/main.cpp"
echo 'target_link_options(fresh PRIVATE -municode)' >>"$out/games/fresh/CMakeLists.txt"
for game in allotment fresh; do
  "$vole" package "$out/games/$game" --target windows -o "$out/packages"
done

wine=$(command -v wine64 || echo /usr/lib/wine/wine64)
if ! [ -x "$wine" ] || ! command -v Xvfb >/dev/null || ! command -v xdotool >/dev/null; then
  echo "SKIPPED: the packages for Windows were made and not played, since wine64, Xvfb or xdotool is not here" >&2
  exit 0
fi
WINEPREFIX=$out/wine
WINEDEBUG=-all
WINEDLLOVERRIDES='mscoree=;mshtml=;winemenubuilder.exe='
LC_ALL=C.UTF-8
DISPLAY=:$((500 + $$ % 400))
export WINEPREFIX WINEDEBUG WINEDLLOVERRIDES LC_ALL DISPLAY
Xvfb "$DISPLAY" -screen 0 1280x800x24 -nolisten tcp -noreset >/dev/null 2>&1 &
server=$!
trap 'wineserver -k 2>/dev/null || /usr/lib/wine/wineserver -k 2>/dev/null || true; kill $server 2>/dev/null || true' EXIT
for attempt in $(seq 50); do xdotool getdisplaygeometry >/dev/null 2>&1 && break; sleep 0.2; done
if ! "$wine" wineboot -i >"$out/wineboot.log" 2>&1; then
  tail -n 5 "$out/wineboot.log" >&2
  echo "SKIPPED: the packages for Windows were made and not played, since wine does not start here" >&2
  exit 0
fi

mkdir -p "$out/played"
python3 tests/windows/windows_test.py "$wine" "$native/examples/allotment/allotment" "$out/games/allotment" \
  "$out"/packages/allotment-*-windows.zip "$out"/packages/fresh-*-windows.zip "$out/played"
