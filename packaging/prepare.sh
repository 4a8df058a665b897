#!/usr/bin/env bash
# Installs the Debian packages that are missing and configures and builds the release preset.
# usage: prepare.sh [cmake target ...]
set -euo pipefail
cd "$(dirname "$0")/.."

missing=()
while read -r package; do
  case "$package" in ''|'#'*) continue ;; esac
  dpkg-query -W -f '${Status}' "$package" 2>/dev/null | grep -q 'install ok installed' || missing+=("$package")
done < packaging/packages.txt
if [ "${#missing[@]}" -gt 0 ]; then
  as_root=()
  if [ "$(id -u)" -ne 0 ]; then
    if ! command -v sudo >/dev/null; then
      echo "These packages are missing and only root can install them: ${missing[*]}" >&2
      exit 1
    fi
    as_root=(sudo)
  fi
  echo "Installing: ${missing[*]}"
  "${as_root[@]}" apt-get update -qq
  "${as_root[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
fi

cmake --preset release >build-configure.log 2>&1 || { cat build-configure.log >&2; rm -f build-configure.log; exit 1; }
rm -f build-configure.log
if [ "$#" -gt 0 ]; then
  cmake --build --preset release --target "$@"
else
  cmake --build --preset release
fi
