"""Tables as files: comma-separated values and spreadsheets (Office Open XML, ISO/IEC 29500)."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence

from openpyxl import Workbook
from openpyxl.styles import Font
from openpyxl.utils import get_column_letter

Cell = str | float
FORMULA = ("=", "+", "-", "@", "\t", "\r")
"""What a spreadsheet takes for a formula when a text begins with it. Source: OWASP, CSV injection."""
MEDIA = {
    "csv": "text/csv; charset=utf-8",
    "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
}


def write_csv(heads: Sequence[str], rows: Sequence[Sequence[Cell]]) -> bytes:
    """A table as comma-separated values, RFC 4180, in UTF-8 with a mark of it; words that a spreadsheet would take for
    a formula begin with an apostrophe."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(heads)
    for row in rows:
        writer.writerow([f"'{cell}" if isinstance(cell, str) and cell.startswith(FORMULA) else cell for cell in row])
    return out.getvalue().encode("utf-8-sig")


def write_xlsx(title: str, heads: Sequence[str], rows: Sequence[Sequence[Cell]]) -> bytes:
    """A table as a spreadsheet with one sheet; words are words there, numbers are numbers."""
    book = Workbook()
    sheet = book.active
    sheet.title = title[:31]
    sheet.append(list(heads))
    for number, row in enumerate(rows, 2):
        for column, value in enumerate(row, 1):
            cell = sheet.cell(number, column, value)
            if isinstance(value, str):
                cell.data_type = "s"
    for cell in sheet[1]:
        cell.font = Font(bold=True)
    for column, held in enumerate(zip(heads, *rows), 1):
        sheet.column_dimensions[get_column_letter(column)].width = min(max(len(str(cell)) for cell in held) + 2, 60)
    sheet.freeze_panes = "B2"
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()
