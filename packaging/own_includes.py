#!/usr/bin/env python3
"""For each source named: a hash of it and of all headers of ours that it includes, directly or through others."""
import hashlib
import pathlib
import re
import sys

source = pathlib.Path(__file__).resolve().parent.parent / "src"
direct = {}


def includes(path):
    if path not in direct:
        text = path.read_text()
        found = [source / name for name in re.findall(r'^#include "([^"]+)"', text, re.M)]
        direct[path] = (hashlib.sha256(text.encode()).digest(), [f for f in found if f.exists()])
    return direct[path]


for name in sys.argv[1:]:
    seen, waiting = {}, [pathlib.Path(name).resolve()]
    while waiting:
        path = waiting.pop()
        if path not in seen:
            seen[path], more = includes(path)
            waiting += more
    whole = hashlib.sha256(b"".join(seen[p] for p in sorted(seen)))
    print(name, whole.hexdigest()[:16])
