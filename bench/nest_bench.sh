#!/usr/bin/env bash
# Nests the benchmark instances in a folder and checks every layout with the checker beside them.
# usage: nest_bench.sh FOLDER CHECKER SECONDS [SEED]      FOLDER holds nest-instance/1 files, CHECKER is check_nesting.py
# With PEER=/path/to/nest_peer the peer nests each too, and where it takes under 3 s the program is given as long.
set -euo pipefail
folder=$1 checker=$2 seconds=$3 seed=${4:-1}
cli="$(cd "$(dirname "$0")/.." && pwd)/build/release/orthema-cli"
out=$(mktemp -d)
density() { /usr/bin/python3 "$checker" "$1" "$2" | tail -1 | sed -E 's/.*density ([0-9.]+).* ([0-9]+) faults/\1 (\2 faults)/'; }
for instance in "$folder"/*.json; do
  name=$(basename "$instance" .json)
  line="$name"
  first=$("$cli" nest "$instance" --out "$out/s.json" --seconds 0 --threads 2 --seed "$seed" | sed -E 's/.* in ([0-9.]+) s.*/\1/')
  line="$line | first $(density "$instance" "$out/s.json") after ${first} s"
  if [ -n "${PEER:-}" ] && timeout 20 "$PEER" "$instance" "$out/p.json" >/dev/null 2>&1; then
    took=$(/usr/bin/python3 -c "import json;print(max(0.05, json.load(open('$out/p.json'))['seconds']))")
    line="$line | peer $(density "$instance" "$out/p.json") in $(printf %.2f "$took") s"
    if [ "$(printf %.0f "$took")" -lt 3 ]; then  # where it takes longer, the column of one second is within its time
      "$cli" nest "$instance" --out "$out/s.json" --seconds "$took" --threads 2 --seed "$seed" >/dev/null
      line="$line, ours in as long $(density "$instance" "$out/s.json")"
    fi
  elif [ -n "${PEER:-}" ]; then
    line="$line | peer: nothing within 20 s"
  fi
  for s in 1 $seconds; do
    "$cli" nest "$instance" --out "$out/s.json" --seconds "$s" --threads 2 --seed "$seed" >/dev/null
    line="$line | $s s $(density "$instance" "$out/s.json")"
  done
  echo "$line"
done
rm -rf "$out"
