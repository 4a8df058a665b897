#!/usr/bin/env bash
# Random layouts, judged by our exact check and by an independent checker: how often they differ.
# usage: bench/layouts_agree.sh CHECKER [COUNT [SEED]]; the checker takes INSTANCE SOLUTION --tol MM and ends with 0 where it finds no fault
set -euo pipefail
cd "$(dirname "$0")/.."
build/release/bench/layouts_agree "${2:-10000}" "${3:-1}" | /usr/bin/python3 -c '
import contextlib, importlib.util, io, json, os, sys, tempfile
spec = importlib.util.spec_from_file_location("checker", sys.argv[1])
checker = importlib.util.module_from_spec(spec)
spec.loader.exec_module(checker)
folder = tempfile.mkdtemp()
a, b = os.path.join(folder, "instance.json"), os.path.join(folder, "solution.json")
def sound(tol):
    sys.argv = ["checker", a, b, "--tol", str(tol)]
    with contextlib.redirect_stdout(io.StringIO()):
        try: checker.main()
        except SystemExit as e: return e.code == 0
limit = agree = 0
differ = []
counts = [0, 0]
for n, line in enumerate(sys.stdin):
    case = json.loads(line)
    json.dump(case["instance"], open(a, "w")); json.dump(case["solution"], open(b, "w"))
    loose, strict = sound(0.0005), sound(-0.0005)
    counts[case["sound"]] += 1
    if loose != strict: limit += 1          # within half a thousandth of a millimetre of the limit
    elif loose == case["sound"]: agree += 1
    else: differ.append(n)
print(f"{sum(counts)} layouts, {counts[1]} sound: {agree} agree, {limit} lie within 0.0005 mm of the limit, {len(differ)} differ {differ[:5]}")
sys.exit(1 if differ else 0)
' "$1"
