# To be sourced: need_packages PACKAGE... installs those that are missing (Debian and its kin).

need_packages() {
  missing=""
  for package in "$@"; do
    dpkg-query --show --showformat='${Status}' "$package" 2>/dev/null | grep -q 'ok installed' || missing="$missing $package"
  done
  [ -z "$missing" ] && return 0
  echo "installing:$missing"
  as_root=""
  if [ "$(id -u)" -ne 0 ]; then
    command -v sudo >/dev/null || { echo "these packages are missing, and without root or sudo they cannot be installed:$missing" >&2; exit 1; }
    as_root="sudo"
  fi
  export DEBIAN_FRONTEND=noninteractive
  log=$(mktemp)
  # shellcheck disable=SC2086
  { $as_root apt-get update -qq && $as_root apt-get install -y -qq --no-install-recommends $missing; } >"$log" 2>&1 ||
    { cat "$log" >&2; rm -f "$log"; exit 1; }
  rm -f "$log"
}

# What it takes to build the library, the program vole and the example games.
build_packages="g++ cmake ninja-build pkg-config libglm-dev libfmt-dev libcli11-dev libtomlplusplus-dev nlohmann-json3-dev libstb-dev libarchive-dev libcpp-httplib-dev libgif-dev libsdl2-dev"

# What the tests and benchmarks need besides.
test_packages="debootstrap make catch2 libbenchmark-dev libboost-dev libpixman-1-dev clang libclang-rt-14-dev g++-mingw-w64-x86-64-posix dpkg-dev wine64 emscripten nodejs node-acorn chromium chromium-driver xvfb xdotool libgl1-mesa-dri imagemagick desktop-file-utils libpng-dev adwaita-icon-theme fonts-dejavu-core python3-jsonschema doxygen"
