#!/usr/bin/env python3
"""Writes rows as an XLSX or ODS file: make_sheet.py OUT < JSON {"sheet name": [[cell, ...], ...], ...}.
A cell is null, a number, a text, or {"formula": "SUM(A1:A2)", "value": 3}."""
import json
import sys
import zipfile
from xml.sax.saxutils import escape

sheets = json.load(sys.stdin)
out = zipfile.ZipFile(sys.argv[1], "w", zipfile.ZIP_DEFLATED)


def letters(c):
    s, c = "", c + 1
    while c:
        c, r = divmod(c - 1, 26)
        s = chr(65 + r) + s
    return s


def xlsx():
    ns = "http://schemas.openxmlformats.org"
    main, rel = ns + "/spreadsheetml/2006/main", ns + "/officeDocument/2006/relationships"
    kind = "application/vnd.openxmlformats-officedocument.spreadsheetml."
    head = '<?xml version="1.0" encoding="UTF-8"?>'
    strings = []
    parts = "".join(f'<Override PartName="/xl/worksheets/sheet{i}.xml" ContentType="{kind}worksheet+xml"/>' for i in range(1, len(sheets) + 1))
    out.writestr("[Content_Types].xml", f'{head}<Types xmlns="{ns}/package/2006/content-types"><Default Extension="rels" '
                 f'ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/>'
                 f'<Override PartName="/xl/workbook.xml" ContentType="{kind}sheet.main+xml"/>{parts}'
                 f'<Override PartName="/xl/sharedStrings.xml" ContentType="{kind}sharedStrings+xml"/></Types>')
    out.writestr("_rels/.rels", f'{head}<Relationships xmlns="{ns}/package/2006/relationships"><Relationship Id="r" Type="{rel}/officeDocument" '
                 f'Target="xl/workbook.xml"/></Relationships>')
    names = "".join(f'<sheet name="{escape(n)}" sheetId="{i}" r:id="s{i}"/>' for i, n in enumerate(sheets, 1))
    out.writestr("xl/workbook.xml", f'{head}<workbook xmlns="{main}" xmlns:r="{rel}"><sheets>{names}</sheets></workbook>')
    links = "".join(f'<Relationship Id="s{i}" Type="{rel}/worksheet" Target="worksheets/sheet{i}.xml"/>' for i in range(1, len(sheets) + 1))
    out.writestr("xl/_rels/workbook.xml.rels", f'{head}<Relationships xmlns="{ns}/package/2006/relationships">{links}'
                 f'<Relationship Id="t" Type="{rel}/sharedStrings" Target="sharedStrings.xml"/></Relationships>')
    for i, rows in enumerate(sheets.values(), 1):
        body = ""
        for r, row in enumerate(rows, 1):
            body += f'<row r="{r}">'
            for c, v in enumerate(row):
                ref = f"{letters(c)}{r}"
                if isinstance(v, dict):
                    body += f'<c r="{ref}"><f>{escape(v["formula"])}</f><v>{v["value"]}</v></c>'
                elif isinstance(v, str):
                    if v not in strings:
                        strings.append(v)
                    body += f'<c r="{ref}" t="s"><v>{strings.index(v)}</v></c>'
                elif v is not None:
                    body += f'<c r="{ref}"><v>{v}</v></c>'
            body += "</row>"
        out.writestr(f"xl/worksheets/sheet{i}.xml", f'{head}<worksheet xmlns="{main}"><sheetData>{body}</sheetData></worksheet>')
    texts = "".join(f"<si><t>{escape(s)}</t></si>" for s in strings)
    out.writestr("xl/sharedStrings.xml", f'{head}<sst xmlns="{main}">{texts}</sst>')


def ods():
    ns = "urn:oasis:names:tc:opendocument:xmlns:"
    out.writestr("mimetype", "application/vnd.oasis.opendocument.spreadsheet", zipfile.ZIP_STORED)
    out.writestr("META-INF/manifest.xml", f'<manifest:manifest xmlns:manifest="{ns}manifest:1.0"><manifest:file-entry manifest:full-path="/" '
                 f'manifest:media-type="application/vnd.oasis.opendocument.spreadsheet"/></manifest:manifest>')

    def cell(v):
        if isinstance(v, dict):
            v = v["value"]
        if v is None:
            return "<table:table-cell/>"
        if isinstance(v, str):
            return f'<table:table-cell office:value-type="string"><text:p>{escape(v)}</text:p></table:table-cell>'
        return f'<table:table-cell office:value-type="float" office:value="{v}"><text:p>{v}</text:p></table:table-cell>'

    body = ""
    for name, rows in sheets.items():
        lines = "".join("<table:table-row>" + ("".join(map(cell, r)) or "<table:table-cell/>") + "</table:table-row>" for r in rows)
        body += f'<table:table table:name="{escape(name)}">{lines}</table:table>'
    out.writestr("content.xml", f'<office:document-content xmlns:office="{ns}office:1.0" xmlns:table="{ns}table:1.0" xmlns:text="{ns}text:1.0" '
                 f'office:version="1.2"><office:body><office:spreadsheet>{body}</office:spreadsheet></office:body></office:document-content>')


ods() if sys.argv[1].endswith(".ods") else xlsx()
out.close()
