#!/usr/bin/env python3
"""Checks that a room includes only the rooms before it. The order here is the picture in docs/architecture.md."""
import pathlib
import re
import sys

ROOMS = [f"core/{r}" for r in ("base", "geometry", "drawing", "blanks", "artwork", "shop", "order", "fitting", "transfers", "nesting",
                               "sheets", "pressing", "guides", "records", "supply", "costing", "papers", "pipeline")]
ROOMS += ["devices", "vision", "drawing", "files", "files/heavy", "reader", "app/widgets", "app/session", "app/photos", "app/desk", "app/benches", "app/window", "app", "cli", "press"]
# rooms that know less than all before them
ONLY = {"core/nesting": {"core/base", "core/geometry"}, "devices": {r for r in ROOMS if r.startswith("core/")}, "vision": {r for r in ROOMS if r.startswith("core/")},
        "press": {"devices", "core/base"}}
source = pathlib.Path(__file__).resolve().parent.parent / "src"


def room_of(path):
    return max((r for r in ROOMS if path.startswith(r + "/")), key=len, default=None)


def bench_of(path):
    parts = path.split("/")
    return parts[2] if parts[:2] == ["app", "benches"] and len(parts) > 3 else None


faults = []
for file in sorted(source.rglob("*.[ch]*")):
    name = str(file.relative_to(source))
    here = room_of(name)
    for number, line in enumerate(file.read_text().splitlines(), 1):
        include = re.match(r'#include "([^"]+)"', line)
        there = room_of(include[1]) if include else None
        if here is None or there is None or there == here and bench_of(include[1]) in (None, bench_of(name)):
            continue
        late = ROOMS.index(there) > ROOMS.index(here) and not (there == "files/heavy" and here == "files")
        if late or there not in ONLY.get(here, {there}) or there == here:
            faults.append(f"src/{name}:{number}: {here} must not know {include[1]}")
print("\n".join(faults) if faults else "every arrow points down")
sys.exit(bool(faults))
