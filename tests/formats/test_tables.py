"""Tables as files, read back by the standard library and by another reader."""

from __future__ import annotations

import csv
import io

from openpyxl import load_workbook

from deepsection.formats.tables import write_csv, write_xlsx

HEADS = ("No.", "of", "note")
ROWS = [("W1", 2, 'with "quotes", commas'), ("W2", 1, "=SUM(A1:A9)"), ("D1", 1, "größer als 1 m²")]


def test_values_come_back_from_a_file_of_commas() -> None:
    text = write_csv(HEADS, ROWS).decode("utf-8-sig")
    read = list(csv.reader(io.StringIO(text)))
    assert read[0] == list(HEADS) and read[1] == ["W1", "2", 'with "quotes", commas']
    assert read[2][2] == "'=SUM(A1:A9)", "no spreadsheet takes it for a formula"
    assert read[3][2] == "größer als 1 m²"


def test_values_come_back_from_a_spreadsheet() -> None:
    sheet = load_workbook(io.BytesIO(write_xlsx("Windows and doors", HEADS, ROWS))).active
    assert sheet is not None and sheet.title == "Windows and doors" and sheet["A1"].font.bold
    values = [[cell.value for cell in row] for row in sheet.iter_rows()]
    assert values == [list(HEADS), *[list(row) for row in ROWS]]
    assert sheet["B2"].data_type == "n" and sheet["C3"].data_type == "s"


def test_a_table_of_no_rows_has_its_heads() -> None:
    assert write_csv(HEADS, []).decode("utf-8-sig") == "No.,of,note\r\n"
    sheet = load_workbook(io.BytesIO(write_xlsx("x" * 60, HEADS, []))).active
    assert sheet is not None and sheet.max_row == 1
