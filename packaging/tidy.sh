#!/usr/bin/env bash
# clang-tidy over all sources, several of them in one go as they are compiled: most of its time goes into the headers of the libraries.
# A group is looked at again only when a file in it, a header of ours that it includes, or the configuration changed.
set -euo pipefail
cd "$(dirname "$0")/.."
build=build/tidy
stamps=$build/stamps
mkdir -p "$stamps"
cmake -S . -B "$build" -G Ninja -DCMAKE_BUILD_TYPE=Release -DORTHEMA_UNITY=ON -DORTHEMA_TESTS=OFF -DORTHEMA_BENCH=OFF >/dev/null
cmake --build "$build" --target orthema_app_autogen >/dev/null
# clang cannot read the compiler's precompiled headers: it gets copies of the headers themselves
for pch in "$build"/CMakeFiles/*.dir/cmake_pch.hxx; do
  target=$(basename "$(dirname "$pch")" .dir)
  cmp -s "$pch" "$stamps/$target.hxx" || cp "$pch" "$stamps/$target.hxx"
done
sed -E -e "s#-Winvalid-pch -include [^ ]*/CMakeFiles/([^/ ]*)\\.dir/cmake_pch\\.hxx#-include $PWD/$stamps/\\1.hxx#" \
  -e 's#"command": "[^"]*/ccache #"command": "#; s# -fpch-preprocess##' \
  "$build/compile_commands.json" > "$stamps/compile_commands.json"
base=$(cat .clang-tidy packaging/tidy.sh | sha256sum | cut -c1-16)
export stamps base
look() {
  local stamp
  stamp="$stamps/$(echo "$1" | tr / _).$base.$2"
  [ -e "$stamp" ] && return 0
  if clang-tidy --quiet -p "$stamps" --extra-arg=-Wno-unknown-warning-option --extra-arg=-Wno-ignored-optimization-argument \
      --extra-arg=-Wno-error "$1" >"$stamp.log" 2>&1; then
    rm -f "$stamps/$(echo "$1" | tr / _)".*
    touch "$stamp"
  else
    grep -E 'error|warning' "$stamp.log" | grep -v 'warnings generated' | head -20
    return 1
  fi
}
export -f look
# pdf_tidy.cpp is left out: clang cannot compile that library's headers with this standard library
sed -nE 's#^ *"file": "([^"]*)".*#\1#p' "$stamps/compile_commands.json" | grep -E "/Unity/unity_|^$PWD/src/" | grep -v reader/pdf_tidy.cpp |
  sort -u | xargs packaging/own_includes.py | xargs -P "$(nproc)" -L 1 bash -c 'look "$1" "$2"' _
