#!/usr/bin/env python3
"""The tables of sentences in resources/languages, held against the source.
usage: languages.py           every sentence has its translation, with the same places for figures, and none is there for nothing
       languages.py --update  what is new is added without a translation, what is gone is taken out"""
import pathlib
import re
import sys

root = pathlib.Path(__file__).resolve().parent.parent
LITERAL = r'"(?:[^"\\\n]|\\.)*"'
LITERALS = rf"({LITERAL}(?:\s*{LITERAL})*)"
# a sentence stands in one of these; counted() also says the plural that an s makes
SAYS = re.compile(rf"\b(?:tr|spoken|noted)\(\s*{LITERALS}\s*\)")
COUNTED = re.compile(rf"\bcounted\([^;]*?,\s*({LITERAL})(?:,\s*({LITERAL}))?\)")
# why something cannot be done
FAULTS = re.compile(rf"\b(?:failed|fail|of_art)\((?:art, )?{LITERALS}|\b(?:refused|fault)\s*=\s*{LITERALS}|\bcase E[A-Z]+: return {LITERALS};")
PLACE = re.compile(r"\{[a-z0-9_]+(\?[^}]*)?\}")
KEYS = re.compile(rf"\bsaid\(\s*{LITERAL},\s*{LITERALS},\s*{LITERALS}\)")
# names of the core's own, which the window and guides say: every literal of these files that is not a key
NAMES = ["blanks/family", "blanks/location", "blanks/measures", "blanks/measuring", "blanks/panel", "blanks/panel_flat", "blanks/panel_upper",
         "blanks/panel_wrap", "blanks/style", "shop/recipe", "shop/correction", "shop/method", "records/press_record", "records/plot_marks",
         "pipeline/work", "transfers/transfers", "records/plots", "artwork/word_picture", "artwork/print_colours", "guides/run_sheet", "sheets/trimmer_drawing",
         "pressing/heat", "costing/price", "transfers/make", "guides/aids"]
KEY = re.compile(r"[a-z0-9_/:%]*|[a-z0-9]+(-[a-z0-9]+)+")
WORDS = set("""ideal feature hem pocket placket zip snaps snap tag seam hole hood bill front back rim base patch handle clip edge cuff grommet
    published measured graded light medium firm heavy pre-press marry trim tack press wait peel re-press turn hover-cure pre-shrink hot warm cool
    lifted ghosted scorched crooked cracked otherwise spoiled middle even pale patches shrinking photographs sheet waste heat bands kite drop
    outseam inseam heart star circle square outline pink magenta red orange yellow green blue-green blue violet from to blank pieces transfer
    platen cutter unrolled aside down tilt plate shift break hands low high left right fold""".split())


def text(literals):
    """What the compiler makes of literals side by side."""
    raw = "".join(re.findall(r'"((?:[^"\\]|\\.)*)"', literals))
    escapes = {"n": "\n", "t": "\t"}
    return re.sub(r"\\(?:u([0-9a-fA-F]{4})|(.))", lambda m: chr(int(m[1], 16)) if m[1] else escapes.get(m[2], m[2]), raw)


# what the shipped methods and recipes say; what a shop types itself stays as it is
SHIPPED = re.compile(rf'"(?:care|cover|base|pad|how)": ({LITERAL})')


def sentences():
    out = {}

    def add(s, where):
        if re.search(r"[^\W\d_]", re.sub(r"%\d|<[^>]*>|&[a-z]+;", "", s)):
            out.setdefault(s, where)

    for file in sorted((root / "src").rglob("*.[ch]*")):
        name = str(file.relative_to(root))
        source = re.sub(r"^\s*//.*$", "", file.read_text(), flags=re.M)
        for m in SAYS.finditer(source):
            add(text(m[1]), name)
        if "/app/" in name:
            for m in COUNTED.finditer(source):
                one = text(m[1])
                add(one, name)
                add(text(m[2]) if m[2] else one + "s", name)
        room = name.removeprefix("src/core/").removesuffix(".cpp").removesuffix(".h")
        if room in NAMES:
            for m in re.finditer(rf'(\w*)\(?\s*({LITERAL})', re.sub(r"#include.*|///<.*", "", source)):
                s = text(m[2])
                if m[1] in ("finding", "phrase", "static_assert") or s[:1].isdigit() or s.startswith(("”", "“", " ", ",", ":", ")")) or s.endswith((" ", "“", "(")):
                    continue
                if s in WORDS or not KEY.fullmatch(s) and len(s) > 2:
                    add(s, name)
                    if room == "blanks/measures" and ", " in s:  # its short name
                        add(s.split(", ")[0], name)
        if "/core/" in name:  # said(reading, "…"), a choice among literals too
            for m in re.finditer(r"\bsaid\(", source):
                depth, end = 1, m.end()
                while depth and end < len(source):
                    if source[end] == '"':
                        end = re.compile(LITERAL).match(source, end).end()
                        continue
                    depth += {"(": 1, ")": -1}.get(source[end], 0)
                    end += 1
                for literal in re.findall(LITERAL, source[m.end():end]):
                    if "-" not in literal or " " in literal:  # not a code
                        add(text(literal), name)
        if "/cli/" not in name and not name.endswith(("nest_json.cpp", "base/language.cpp")):  # what no window says
            for m in FAULTS.finditer(source):
                add(text(next(g for g in m.groups() if g)), name)
            for m in re.finditer(rf'\bError\s?\w*\{{(?:[^"{{}};]*\?)?\s*{LITERALS}(?:\s*:\s*{LITERALS})?|\{{\s*{LITERALS},\s*\{{\}}\s*\}}', source):
                for s in filter(None, m.groups()):
                    if " " in text(s) or s.endswith('."'):
                        add(text(s), name)
            if not name.endswith("catalogue.cpp"):  # where a sentence stands with what it is about
                for m in re.finditer(LITERALS, source):
                    if " " in text(m[1]) and PLACE.search(text(m[1])):
                        add(text(m[1]), name)
        if name.endswith("keys_panel.cpp"):
            for m in KEYS.finditer(source):
                add(text(m[1]), name)
                add(text(m[2]), name)
        if name.endswith("catalogue.cpp"):
            for m in re.finditer(rf'\{{{LITERAL},\s*\w+,\s*{LITERAL},\s*{LITERALS}\}}', source):
                add(text(m[1]), name)
    for m in SHIPPED.finditer((root / "resources/library.json").read_text()):
        add(text(m[1]), "resources/library.json")
    return out


# what looks like a sentence and is none
NONE = re.compile(r"(setObjectName|findChildren?(<[^>]*>)?|setStyleSheet|QKeySequence|QRegularExpression)\(?\s*$")

SAME = {"drag on the wall", "/demo orders", "Orthema", "English"}  # no words that anybody reads, or alike everywhere


def bare():
    """Sentences of the window that no table is asked for."""
    out = []
    for file in sorted((root / "src/app").rglob("*.[ch]*")):
        if file.name in ("theme.cpp", "log.cpp"):
            continue
        source = file.read_text()
        for m in re.finditer(rf"(QStringLiteral|QLatin1String)\(\s*({LITERAL})", source):
            s = re.sub(r"<[^>]*>|%\d|&nbsp;", "", text(m[2]))
            if not (re.search(r"[a-z] [a-zA-Z(]", s) or re.match(r"[A-Z][a-z]{2}", s)) or s.startswith(("#", "font", "color", "qproperty")):
                continue
            if s not in SAME and not NONE.search(source[max(0, m.start() - 60):m.start()].rstrip("\n ")):
                out.append((str(file.relative_to(root)), source.count("\n", 0, m.start()) + 1, s))
    return out


def unquoted(lines):
    return text("".join(lines))


def read(path):
    """Header lines, then sentence -> translation, in their order."""
    header, out, state, english, other = [], {}, None, [], []

    def take():
        if state is None:
            return
        if unquoted(english):
            out[unquoted(english)] = unquoted(other)
        else:
            header.extend(other)

    for line in path.read_text().splitlines():
        if line.startswith("msgid "):
            take()
            state, english, other = "id", [line[6:]], []
        elif line.startswith("msgstr "):
            state = "str"
            other = [line[7:]]
        elif line.startswith('"'):
            (english if state == "id" else other).append(line)
    take()
    return header, out


def quoted(s):
    return '"' + s.replace("\\", "\\\\").replace('"', '\\"').replace("\n", "\\n").replace("\t", "\\t") + '"'


def write(path, header, table, wanted):
    with path.open("w") as to:
        to.write("msgid \"\"\nmsgstr " + "\n".join(header) + "\n")
        for s, where in sorted(wanted.items(), key=lambda x: (x[1], x[0])):
            to.write(f"\n#: {where}\nmsgid {quoted(s)}\nmsgstr {quoted(table.get(s, ''))}\n")


def places(s):
    """What stands for a figure or a name, each as often as it does; of a choice by number only the number."""
    found = re.findall(r"%\d|\{[a-z0-9_-]+\}", re.sub(r"\{([a-z0-9_-]+)\?[^}]*\}", "", s))
    choices = set(re.findall(r"\{([a-z0-9_-]+)\?", s))
    return sorted(set(found)), choices


def faults_of(english, other):
    if not other.strip():
        return "is not translated"
    if places(english)[0] != places(other)[0]:
        return f"has {places(other)[0]} where English has {places(english)[0]}"
    if places(other)[1] - places(english)[1] - {p.strip("{}") for p in places(english)[0]}:
        return "chooses by a number that it is not given"
    if english[:1].isspace() != other[:1].isspace() or english[-1:].isspace() != other[-1:].isspace():
        return "has not the same space at its ends"
    return None


def main():
    wanted = sentences()
    said = 0
    for where, line, s in bare():
        said += 1
        print(f"{where}:{line}: “{s[:70]}” is said in English alone: tr() it")
    for path in sorted((root / "resources/languages").glob("*.po")):
        header, table = read(path)
        if "--update" in sys.argv:
            write(path, header, table, wanted)
            print(f"{path.stem}: {sum(1 for s in wanted if not table.get(s))} of {len(wanted)} without a translation")
            continue
        for s, where in wanted.items():
            fault = faults_of(s, table.get(s, ""))
            if fault:
                said += 1
                if said <= 40:
                    print(f"{path.name}: {where}: “{s[:70]}” {fault}")
        for s in table:
            if s not in wanted:
                said += 1
                print(f"{path.name}: “{s[:70]}” stands nowhere in the source")
    if "--update" not in sys.argv:
        print("every sentence is said in every language" if said == 0 else f"{said} in all; packaging/languages.py --update adds what is new")
    sys.exit(bool(said))


if __name__ == "__main__":
    main()
