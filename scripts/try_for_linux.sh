#!/bin/sh
# Packs the examples for Linux, unpacks them where nothing but a bare Debian is, and replays their runs there; then, with the libraries of
# a display beside them, opens their windows.
#   scripts/try_for_linux.sh <folder to work in> <native build folder>
set -eu
cd "$(dirname "$0")/.."
mkdir -p "$1"
out=$(cd "$1" && pwd)
native=$(cd "$2" && pwd)
vole=$native/cli/vole
XDG_CACHE_HOME=$native/cache
export XDG_CACHE_HOME

rm -rf "$out/games" "$out/packages"
mkdir -p "$out/games"
for game in allotment milkround towpath; do
  cp -r "examples/$game" "$out/games/$game"
  "$vole" package "$out/games/$game" -o "$out/packages"
  program=$out/games/$game/build/package/$game
  others=$(readelf --dynamic "$program" | sed -n 's/.*(NEEDED).*\[\(.*\)\]/\1/p' | grep -v -E '^(libc|libm)\.so\.6$|^ld-linux' || true)
  if [ -n "$others" ]; then
    echo "$game asks for more than the C library:" $others >&2
    exit 1
  fi
  echo "$game: $(stat -c %s "$program") bytes, $(stat -c %s "$out"/packages/"$game"-*.tar.gz) packed"
done

skip() {
  echo "SKIPPED: the packages for Linux were made and not tried in a bare system, since $1" >&2
  exit 0
}
[ "$(id -u)" -eq 0 ] || skip "that needs root"
command -v debootstrap >/dev/null || skip "debootstrap is not here"
bare=$out/bare
if ! [ -e "$bare/ready" ]; then
  rm -rf "$bare"
  suite=$(. /etc/os-release && echo "${VERSION_CODENAME:-stable}")
  archive=$(apt-get indextargets --format '$(REPO_URI)' 'Created-By: Packages' 'Origin: Debian' "Codename: $suite" | head -n 1)
  debootstrap --variant=minbase "$suite" "$bare/system" $archive >"$out/debootstrap.log" 2>&1 ||
    skip "debootstrap did not get there: $(tail -n 1 "$out/debootstrap.log")"
  touch "$bare/ready"
fi

# What lies in a package of the game there.
run_of() { case $1 in allotment) echo harvest ;; milkround) echo round ;; towpath) echo home ;; esac; }
system=$bare/system
in_system() { env -i PATH=/usr/sbin:/usr/bin:/sbin:/bin HOME=/root "$@"; }
rm -rf "$system/games"
mkdir "$system/games"
for game in allotment milkround towpath; do
  cp "$out"/packages/"$game"-*-linux.tar.gz "$system/games/$game.tar.gz"
  in_system chroot "$system" tar -xzf "/games/$game.tar.gz" -C /games
  folder=$(cd "$system" && echo games/"$game"-*-linux)
  in_system chroot "$system" "/$folder/$game" --headless --replay "/$folder/game/recordings/$(run_of $game).run"
  # Without a display library it says what to do.
  if in_system chroot "$system" "/$folder/$game" >"$out/no-display.txt" 2>&1; then
    echo "$game opened a window where nothing can show one" >&2
    exit 1
  fi
  grep -q -- '--headless' "$out/no-display.txt" || { cat "$out/no-display.txt" >&2; exit 1; }
done

# The libraries of a display alone, as files: nothing is installed there.
command -v Xvfb >/dev/null && command -v xdotool >/dev/null || skip "Xvfb or xdotool is not here, for the windows"
mkdir -p "$bare/archives"
(cd "$bare/archives" && [ -e libx11-6_*.deb ] || apt-get download -qq libx11-6 libxext6 libxcursor1 libxrender1 libxi6 libxrandr2 \
  libxfixes3 libxss1 libxcb1 libxau6 libxdmcp6 libbsd0 libmd0 >"$out/download.log" 2>&1) || skip "the display libraries did not arrive"
shown=$bare/with_display
rm -rf "$shown"
cp -al "$system" "$shown"
for archive in "$bare"/archives/*.deb; do dpkg -x "$archive" "$shown"; done
DISPLAY=:$((500 + $$ % 400))
export DISPLAY
Xvfb "$DISPLAY" -screen 0 1280x800x24 -noreset >/dev/null 2>&1 &
server=$!
trap 'kill $server 2>/dev/null || true' EXIT
for attempt in $(seq 50); do xdotool getdisplaygeometry >/dev/null 2>&1 && break; sleep 0.2; done
for game in allotment milkround towpath; do
  folder=$(cd "$system" && echo games/"$game"-*-linux)
  in_system DISPLAY="$DISPLAY" chroot "$shown" "/$folder/$game" --ticks 480 >"$out/$game.txt" 2>&1 &
  started=$!
  window=$(timeout 20 xdotool search --sync --onlyvisible --class '.' | head -n 1) || true
  if wait $started && [ -n "$window" ]; then
    echo "$game: shown in a window"
  else
    cat "$out/$game.txt" >&2
    echo "$game: no window was shown" >&2
    exit 1
  fi
done
