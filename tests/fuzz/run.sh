#!/bin/sh
# Fuzzes every loader:  tests/fuzz/run.sh <the program vole_fuzz> <seconds for each>
set -eu
program=$1
seconds=$2
fuzz() {
  for target in "$@"; do
    log=$(mktemp)
    file=$(echo "$target" | tr ' ' '-')
    if VOLE_FUZZ_TARGET="$target" "$program" -max_total_time="$seconds" -max_len=70000 -rss_limit_mb=2048 -artifact_prefix="fuzz-$file-" >"$log" 2>&1; then
      echo "$target: $(grep -oE 'Done [0-9]+ runs' "$log" | tail -n 1), no crash"
      rm -f "$log"
    else
      tail -n 40 "$log"
      rm -f "$log"
      echo "$target: crashed; the input is in fuzz-$file-*" >&2
      return 1
    fi
  done
}
# Half of them beside the other half.
fuzz picture outline toml sheet "named sheet" "lively sheet" font truetype "truetype text" &
first_half=$!
failed=0
fuzz atlas tileset level kinds controls project recording save snapshot "written state" "saved scenes" || failed=1
wait $first_half || failed=1
exit $failed
