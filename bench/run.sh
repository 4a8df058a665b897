#!/usr/bin/env bash
# Every figure of docs/performance.md, in one run.
set -euo pipefail
cd "$(dirname "$0")/.."
bench/start.sh
QT_QPA_PLATFORM=offscreen build/release/bench/desk_bench 2000 2>/dev/null
QT_QPA_PLATFORM=offscreen build/release/bench/wall_bench 2>/dev/null
QT_QPA_PLATFORM=offscreen build/release/bench/window_bench demo/marrow-hill
build/release/bench/png_bench demo/marrow-hill
build/release/bench/making_bench
