#!/bin/sh
# Fuzzes every loader:  tests/fuzz/run.sh <the program vole_fuzz> <seconds for each>
set -eu
program=$1
seconds=$2
for target in picture outline toml sheet "named sheet" "lively sheet" font truetype "truetype text" atlas tileset level kinds controls project recording snapshot "written state"; do
  log=$(mktemp)
  file=$(echo "$target" | tr ' ' '-')
  if VOLE_FUZZ_TARGET="$target" "$program" -max_total_time="$seconds" -max_len=70000 -rss_limit_mb=2048 -artifact_prefix="fuzz-$file-" >"$log" 2>&1; then
    echo "$target: $(grep -oE 'Done [0-9]+ runs' "$log" | tail -n 1), no crash"
    rm -f "$log"
  else
    tail -n 40 "$log"
    rm -f "$log"
    echo "$target: crashed; the input is in fuzz-$file-*" >&2
    exit 1
  fi
done
