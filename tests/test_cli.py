"""The command line, as a shell sees it: files, exit codes, and errors on standard error."""

from __future__ import annotations

import json
import math
from pathlib import Path
from typing import Any

import pdfplumber
import pytest
from ezdxf.math import Matrix44
from typer.testing import CliRunner, Result

from deepsection.cli import app
from tests.plan_files import plan_file, small_house
from tests.plans_drawn.manners import as_bytes, drawn
from tests.plans_drawn.truth import houses


@pytest.fixture(autouse=True)
def database(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("DEEPSECTION_DATABASE", f"sqlite:///{tmp_path / 'data.db'}")


def run(*words: str) -> Result:
    return CliRunner().invoke(app, list(words))


def refused(*words: str) -> str:
    """What is said on standard error by a command that must fail."""
    done = run(*words)
    assert done.exit_code == 2 and not done.stdout and "Traceback" not in done.stderr
    return done.stderr


def test_projects_and_views_are_listed() -> None:
    assert "quillback\tQuillback House" in run("projects").stdout
    listed = run("views", "quillback").stdout
    assert "elevation:south\tSouth elevation" in listed and "sheet A1" in listed


@pytest.mark.parametrize(
    ("ending", "start"), [("pdf", b"%PDF"), ("dxf", b"  0"), ("svg", b"<svg"), ("png", b"\x89PNG"), ("json", b"{")]
)
def test_views_and_sheets_are_drawn(tmp_path: Path, ending: str, start: bytes) -> None:
    for number, what in enumerate((("--view", "section:section-a", "--scale", "24"), ("--sheet", "A1"))):
        file = tmp_path / f"out{number}.{ending}"
        done = run("draw", "quillback", *what, "-o", str(file))
        assert done.exit_code == 0, done.stderr
        assert file.read_bytes().startswith(start)


def test_the_layers_of_a_dxf_are_named_as_asked(tmp_path: Path) -> None:
    file = tmp_path / "a1.dxf"
    assert run("draw", "quillback", "--sheet", "A1", "-o", str(file), "--layers", "ncs").exit_code == 0
    assert b"A-ELEV-OTLN" in file.read_bytes()
    refused = run("draw", "quillback", "--sheet", "A1", "-o", str(file), "--layers", "mine")
    assert refused.exit_code == 2 and "plain, iso13567 or ncs" in refused.stderr


def test_from_a_plan_to_a_printed_sheet_by_the_shell_alone(tmp_path: Path) -> None:
    """Plan in, a roof and a section by edits, views placed where there is room, the sheet out: no screen."""
    plan, edits, pdf = tmp_path / "plan.dxf", tmp_path / "edits.json", tmp_path / "a1.pdf"
    plan.write_bytes(plan_file(small_house))
    made = run("plan", str(plan), "--name", "By shell", "--units", "mm").stdout.strip()
    eave, gable = {"kind": "eave", "overhang": 400}, {"kind": "gable", "overhang": 300}
    roof = {
        "id": "roof-1",
        "name": "Roof",
        "outline": [{"x": 0, "y": 0}, {"x": 10000, "y": 0}, {"x": 10000, "y": 7000}, {"x": 0, "y": 7000}],
        "edges": [eave, gable, eave, gable],
        "pitch": 0.5,
        "plate": "plate",
        "seat": 90,
        "make_up": "roof",
        "fascia_depth": 190,
    }
    cut = {"id": "cut", "name": "A", "x1": 3000, "y1": -1500, "x2": 3000, "y2": 8500}
    steps = [{"kind": "draw_roof", "roof": roof}, {"kind": "put_section", "section": cut}]
    edits.write_text(json.dumps(steps))
    done = run("edit", made, str(edits))
    assert done.exit_code == 0 and "done: put on Roof" in done.stderr
    for view in ("elevation:south", "section:cut"):
        assert run("place", made, "--view", view, "--scale", "100").exit_code == 0
    drawn = run("draw", made, "--sheet", "A1", "-o", str(pdf))
    assert drawn.exit_code == 0 and "over the frame" not in drawn.stderr and "fit" not in drawn.stderr
    with pdfplumber.open(pdf) as document:
        text = document.pages[0].extract_text()
    assert "South elevation" in text and "Section A" in text and "By shell" in text
    assert "place" not in run("history", made).stdout.splitlines()[-1]

    assert "no view “elevation:up”" in refused("place", made, "--view", "elevation:up", "--scale", "100")
    assert "is no scale" in refused("place", made, "--view", "plan", "--scale", "0")
    assert "no sheet B7" in refused("place", made, "--view", "plan", "--scale", "100", "--sheet", "B7")
    edits.write_text(json.dumps([{"kind": "move_opening", "opening": "ghost", "distance": 1}]))
    assert "ghost" in refused("edit", made, str(edits))
    edits.write_text('[{"kind": "fly"}]')
    assert "kind" in refused("edit", made, str(edits))
    edits.write_text("[")
    assert "deepsection: " in refused("edit", made, str(edits))


def test_a_turned_plan_is_laid_square(tmp_path: Path) -> None:
    """A house turned by 17 degrees: its walls along the sheet after, and nothing built where that cannot be."""
    plan, out = tmp_path / "turned.dxf", tmp_path / "house.json"

    def draw(space: Any) -> None:
        small_house(space)
        for entity in space:
            entity.transform(Matrix44.z_rotate(math.radians(17.0)))

    plan.write_bytes(plan_file(draw))
    made = run("plan", str(plan), "--name", "Laid square", "--units", "mm", "--lay", "square").stdout.strip()
    run("export", made, "-o", str(out))
    house = json.loads(out.read_text())
    spots = {held["id"]: (held["x"], held["y"]) for held in house["joints"] if "x" in held}
    outer = [wall for wall in house["walls"] if wall["status"] == "outer"]
    assert len(outer) == 4
    for wall in outer:
        (x0, y0), (x1, y1) = spots[wall["start"]], spots[wall["end"]]
        assert min(abs(x1 - x0), abs(y1 - y0)) < 0.1
    assert "square or north" in refused("plan", str(plan), "--name", "No", "--lay", "askew")
    assert "north" in refused("plan", str(plan), "--name", "No", "--lay", "north")


def test_a_drawing_is_laid_under_a_view(tmp_path: Path) -> None:
    file = tmp_path / "old.dxf"

    def draw(space: Any) -> None:
        small_house(space)
        space.add_text("SURVEY", height=400.0).set_placement((1000.0, 5000.0))

    file.write_bytes(plan_file(draw))
    plans = [tmp_path / f"{name}.svg" for name in ("without", "below", "printed")]
    ids = []
    for plan, words in zip(plans, ((), (str(file),), (str(file), "--printed"))):
        if words:
            ids.append(run("background", "hollin", *words).stdout.strip())
        assert run("draw", "hollin", "--view", "plan", "-o", str(plan)).exit_code == 0
    without, below, printed = (plan.read_text() for plan in plans)
    assert len(set(ids)) == 2 and "SURVEY" not in without + below and "SURVEY" in printed
    assert "under plans" in refused("background", "hollin", str(file), "--view", "section:section-a")
    assert "cannot be read" in refused("background", "hollin", str(tmp_path / "none.dxf"))


def test_both_plans_of_two_storeys_are_drawn(tmp_path: Path) -> None:
    listed = run("views", "otterfold").stdout
    assert "plan\tMain floor plan" in listed and "plan:upper\tUpper floor plan" in listed
    for view in ("plan", "plan:upper"):
        done = run("draw", "otterfold", "--view", view, "--format", "json")
        assert json.loads(done.stdout)["placed"][0]["drawing"]["name"] == view
    told = run("heights", "otterfold").stdout
    assert "Upper floor  10'-8 5/8\"" in told and "2x10 joists" in told
    assert "plan:attic" in refused("draw", "otterfold", "--view", "plan:attic", "-o", str(tmp_path / "x.pdf"))


def test_marks_go_to_standard_output() -> None:
    done = run("draw", "quillback", "--view", "elevation:south", "--format", "json")
    assert json.loads(done.stdout)["placed"][0]["drawing"]["name"] == "elevation:south"


def test_heights_are_printed_with_their_sums() -> None:
    told = run("heights", "quillback").stdout
    assert "ridge, Main roof  18'-7 3/16\"" in told and "8:12 over half span" in told


def test_a_project_goes_round(tmp_path: Path) -> None:
    made = run("start", "Hen house", "--units", "mm").stdout.strip()
    twin = run("copy", made).stdout.strip()
    file = tmp_path / "hen.json"
    assert run("export", twin, "-o", str(file)).exit_code == 0
    back = run("import", str(file)).stdout.strip()
    assert len({made, twin, back}) == 3
    assert "Hen house, copy 2" in run("projects").stdout
    assert run("archive", made).exit_code == 0
    assert made not in run("projects").stdout and "archived" in run("projects", "--all").stdout
    assert "bring in the project" in run("history", back).stdout


def test_mistakes_are_told_in_one_line(tmp_path: Path) -> None:
    broken = tmp_path / "broken.json"
    broken.write_text('{"schema_version": 1, "id"')
    assert "no project “ghost”" in refused("views", "ghost")
    assert "elevation:up" in refused("draw", "quillback", "--view", "elevation:up", "-o", str(tmp_path / "x.pdf"))
    assert "no sheet Z9; there is A1, A2" in refused(
        "draw", "quillback", "--sheet", "Z9", "-o", str(tmp_path / "x.pdf")
    )
    assert "no format" in refused("draw", "quillback", "--sheet", "A1", "-o", str(tmp_path / "x.bmp"))
    assert "one of --view and --sheet" in refused("draw", "quillback", "-o", str(tmp_path / "x.pdf"))
    assert "cannot be written" in refused("draw", "quillback", "--sheet", "A1", "-o", str(tmp_path / "none" / "x.pdf"))
    assert "no unit" in refused("start", "X", "--units", "furlong")
    assert "here already" in refused("start", "Quillback House")
    assert "whole project file" in refused("import", str(broken))
    assert "cannot be read" in refused("import", str(tmp_path / "nothing.json"))
    assert not list(tmp_path.glob("*.part")) and not (tmp_path / "x.pdf").exists()


def test_a_masonry_project_is_started_from_the_shell() -> None:
    made = run("start", "Block house", "--starter", "masonry").stdout.strip()
    assert "elevation:south" in run("views", made).stdout
    assert "in millimetres" in refused("start", "Y", "--starter", "masonry", "--units", "ft-in")
    assert "no starter" in refused("start", "Z", "--starter", "straw")


def test_a_plan_becomes_a_printed_sheet_by_the_shell_alone(tmp_path: Path) -> None:
    file, pdf = tmp_path / "plan.dxf", tmp_path / "south.pdf"
    file.write_bytes(plan_file(small_house))
    done = run("plan", str(file), "--name", "From a file", "--units", "mm")
    assert done.exit_code == 0 and "FURNITURE" in done.stderr and "6 walls" in done.stderr
    made = done.stdout.strip()
    assert run("draw", made, "--view", "elevation:south", "--scale", "100", "-o", str(pdf)).exit_code == 0
    assert pdf.read_bytes().startswith(b"%PDF")
    chosen = ("--make-up", "0 outer=wall-batten", "--layer", "WALL-INNER=-", "--ground", "joists", "--units", "mm")
    other = run("plan", str(file), "--name", "Chosen", *chosen)
    assert "4 walls" in other.stderr and "Crawl space" in run("heights", other.stdout.strip()).stdout
    assert "called “straw”" in refused("plan", str(file), "--name", "Other", "--make-up", "0 outer=straw")
    assert "none of “straw”" in refused("plan", str(file), "--name", "Other", "--layer", "WALL-OUTER=straw")
    assert "no choice for a layer" in refused("plan", str(file), "--name", "Other", "--layer", "WALL-OUTER")
    assert "needs a name" in refused("plan", str(file))
    assert "no lowest floor" in refused("start", "Other", "--ground", "water")
    file.write_bytes(b"broken")
    assert "not a DXF file" in refused("plan", str(file), "--name", "Other", "--unit", "mm")
    assert "Other" not in run("projects").stdout, "nothing half applied"


def test_a_plan_is_told_to_other_programs(tmp_path: Path) -> None:
    """The cottage: 32 m of outer walls 300 thick, eleven openings, where the file has them; nothing is built."""
    file = tmp_path / "cottage.dxf"
    file.write_bytes(as_bytes(drawn(houses()[0], "everything")))
    before = run("projects").stdout
    told = json.loads(run("plan", str(file), "--look", "--json").stdout)
    outer = [wall for wall in told["walls"] if wall["outer"]]
    assert {wall["thickness"] for wall in outer} == {300.0}
    assert sum(wall["length"] for wall in outer) == pytest.approx(32000.0, abs=2.0)
    assert len(told["openings"]) == 11 and {held["kind"] for held in told["openings"]} == {"window", "door"}
    assert told["unit"]["name"] == "mm" and told["dimensions"] and told["left_over"]
    assert all(0.0 < held["confidence"] <= 1.0 and held["reason"] for held in [*told["walls"], *told["openings"]])
    table = run("plan", str(file), "--look").stderr
    assert "300.0" in table and "32.00 m" in table and "Kitchen" in table
    assert run("projects").stdout == before
    built = json.loads(run("plan", str(file), "--name", "Cottage", "--units", "mm", "--json").stdout)
    assert built["project"] in run("projects").stdout


def test_the_building_is_written_as_a_model(tmp_path: Path) -> None:
    target = tmp_path / "house.ifc"
    assert run("model", "quillback", "-o", str(target)).exit_code == 0
    text = target.read_text("utf-8")
    assert text.startswith("ISO-10303-21;") and "IFCWALL(" in text and "Quillback House" in text
    assert "ghost" in refused("model", "ghost", "-o", str(target))


def test_what_was_done_is_undone_redone_and_gone_back_to(tmp_path: Path) -> None:
    file = tmp_path / "edits.json"
    file.write_text('[{"kind": "set_project", "place": "Moved Lane"}]', "utf-8")
    assert run("edit", "quillback", str(file)).exit_code == 0
    assert "undo" in run("undo", "quillback").stderr
    assert "redo" in run("redo", "quillback").stderr
    assert "version 5" in run("goto", "quillback", "1").stderr
    assert "version 6" in run("goto", "quillback").stderr
    assert "no version 99" in refused("goto", "quillback", "99")
    assert "nothing to redo" in refused("redo", "quillback")


def test_a_structural_plan_goes_to_the_engineer_and_back(tmp_path: Path) -> None:
    plan, reply = tmp_path / "plan.dxf", tmp_path / "answer.json"
    run("draw", "otterfold", "--view", "plan:structure:upper-joists", "-o", str(plan))
    run("review-plan", str(plan), "-o", str(reply))
    assert json.loads(reply.read_text())["looked_at"] == {"spans": 2, "beams": 2}
    reply.write_text('{"units": "in", "comments": [{"x": 1, "y": 2, "text": "Say what this is."}]}')
    told = run("engineer", "otterfold", "--view", "plan:structure:upper-joists", "--answer", str(reply))
    assert "engineer: Say what this is." in told.stdout
    assert "structural plan" in refused("engineer", "otterfold", "--view", "plan:upper")
    assert "no DXF" in refused("review-plan", str(reply), "-o", str(tmp_path / "x.json"))
    run("undo", "otterfold")


def test_junctions_are_listed_and_details_drawn_and_printed(tmp_path: Path) -> None:
    listed = run("junctions", "hollin")
    assert listed.exit_code == 0 and "eave 1" in listed.stdout and "footing" in listed.stdout
    rows = json.loads(run("junctions", "hollin", "--json").stdout)
    eaves = [row for row in rows if row["kind"] == "eave"]
    # A house of 10.8 m under one gable roof.
    assert sum(row["length_mm"] for row in eaves) == pytest.approx(2 * 10_800.0)
    assert {row["id"].split("/")[0] for row in rows} == {row["kind"] for row in rows}
    assert not any(row["details"] for row in rows)
    names = [line.split("\t")[0] for line in run("details", "hollin", "--sheets").stdout.splitlines()]
    assert len(names) > 10 and run("details", "hollin").stdout.splitlines()[0].startswith("detail:detail-1\t1, eave")
    assert "detail:detail-1" in run("junctions", "hollin").stdout
    file = tmp_path / "eave.pdf"
    assert run("draw", "hollin", "--view", names[0], "--scale", "10", "-o", str(file)).exit_code == 0
    with pdfplumber.open(file) as pdf:
        assert "tiles on battens" in pdf.pages[0].extract_text()
    assert "Details" in run("views", "hollin").stdout
    assert "there is no project" in refused("junctions", "nobody")


def test_lines_are_followed_view_by_view_and_at_every_junction() -> None:
    run("details", "hollin")
    (told,) = json.loads(run("continuity", "hollin", "--view", "detail:detail-1", "--json").stdout)
    assert told["at"] == "detail:detail-1"
    assert [line["line"] for line in told["lines"]] == ["weather", "air", "thermal", "vapour"]
    for line in told["lines"]:
        assert line["closes"] == (not line["gaps"])
        for gap in line["gaps"]:
            far = sum((a - b) ** 2 for a, b in zip(gap["from"], gap["to"], strict=True)) ** 0.5
            assert abs(far - gap["width_mm"]) < 0.3 and len(gap["between"]) == 2
    table = run("continuity", "hollin").stdout
    assert "sill 1" in table and "closes" in table
    strip = json.loads(run("continuity", "hollin", "--view", "section:wall-section-1", "--json").stdout)
    assert all(line["there"] for line in strip[0]["lines"] if line["line"] in ("weather", "air", "thermal"))
    assert "details and in wall sections" in refused("continuity", "hollin", "--view", "elevation:south")
    rows = json.loads(run("junctions", "hollin", "--json").stdout)
    assert {row["build_up"] for row in rows if row["kind"] == "sill"} == {"sill-stone"}
    assert any("Approved Document C" in words for row in rows for words in row["findings"])
