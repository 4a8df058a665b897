#!/usr/bin/env bash
# Time from launch to the first painted frame and out again, against a bare QMainWindow program, taken in turns.
# Under an X server of its own unless QT_QPA_PLATFORM says otherwise. usage: start.sh [rounds]
set -euo pipefail
cd "$(dirname "$0")/.."
rounds=${1:-20}
if [ -z "${QT_QPA_PLATFORM:-}" ]; then
  export QT_QPA_PLATFORM=xcb
  exec xvfb-run -a -s "-screen 0 1280x800x24" "$0" "$@"
fi
export XDG_DATA_HOME; XDG_DATA_HOME=$(mktemp -d)
trap 'rm -rf "$XDG_DATA_HOME"' EXIT
once() { local a b; a=$(date +%s%N); "$@" >/dev/null 2>&1; b=$(date +%s%N); echo $(((b - a) / 1000)); }
once build/release/bench/bare_window >/dev/null; once build/release/orthema --quit-when-shown >/dev/null
bare=(); ours=()
for ((i = 0; i < rounds; ++i)); do
  bare+=("$(once build/release/bench/bare_window)")
  ours+=("$(once build/release/orthema --quit-when-shown)")
done
median() { printf '%s\n' "$@" | sort -n | sed -n "$((($# + 1) / 2))p"; }
b=$(median "${bare[@]}"); o=$(median "${ours[@]}")
awk -v b="$b" -v o="$o" 'BEGIN { printf "start to first frame: %.0f ms, a bare window %.0f ms, ratio %.2f\n", o / 1000, b / 1000, o / b }'
