"""The tables that `make bench` prints: every stage cold, every view cold, and edits end to end."""

from __future__ import annotations

import math
import statistics
import sys
import tempfile
from collections import Counter, defaultdict
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager
from pathlib import Path
from time import perf_counter

import orjson
from rich.console import Console
from rich.table import Table

from deepsection.core.edits import put
from deepsection.core.geometry import Frame, roof_over
from deepsection.core.kinds import STAGES
from deepsection.core.memo import tune_memory
from deepsection.core.model import ElevationView, Project
from deepsection.core.resolve import SOLIDS, Part, resolve
from deepsection.core.view import draw_view, list_views
from deepsection.core.view.edges import visible_edges
from deepsection.core.view.faces import Face, faces_of
from deepsection.core.view.visible import visible_faces
from deepsection.demo import DEMOS, hollin_bothy, larkmoor_house
from deepsection.service.benches import bench_of
from deepsection.service.database import open_database
from deepsection.service.schemas import ViewWanted
from deepsection.service.store import Store
from deepsection.service.work import building_of, checked_edits
from deepsection.service.workers import POOL, usual_count

from .caches import clear_caches
from .comb import comb
from .details import all_as_pdf, detail_runs
from .edits import EDIT_CASES, LOCAL, held_of
from .floors import floor_seconds, stair_seconds
from .hidden_lines import areas_by_material, as_one, available, hidden_line_seconds, solids_of
from .lettering import drag_seconds, lettering_seconds
from .many import peak_mib, shifted
from .plans import plan_runs
from .recorded import FILE, WORSE, Figures
from .row import move_door, move_partition, row_of_rooms
from .sections import section_drags, section_runs, six_on_a_sheet

ROUNDS = 9
"""Runs of each figure; the median is printed."""

RECTANGLE = [(0.0, 0.0), (12e3, 0.0), (12e3, 8e3), (0.0, 8e3)]
L_SHAPE = [(0.0, 0.0), (12e3, 0.0), (12e3, 6e3), (6e3, 6e3), (6e3, 14e3), (0.0, 14e3)]
"""Outlines of every day (mm)."""

out = Console(width=110)
figures = Figures()


class Clock:
    """Milliseconds by name, over runs."""

    def __init__(self) -> None:
        self.runs: dict[str, list[float]] = {}

    @contextmanager
    def __call__(self, name: str) -> Iterator[None]:
        start = perf_counter()
        yield
        self.runs.setdefault(name, []).append((perf_counter() - start) * 1000)

    def median(self, name: str) -> float:
        return statistics.median(self.runs[name])


def main() -> None:
    """Print every table for every demo."""
    tune_memory()
    out.print(f"this machine adds 10 million numbers in {pace():.2f} s\n")
    for make in DEMOS:
        project = make()
        stages(project)
        views(project)
        edits(project)
    large_plan()
    large_roof()
    one_elevation()
    floors()
    lettering()
    sections()
    details()
    plans()
    growth()
    hidden_lines()
    compare(record="--record" in sys.argv)


def compare(*, record: bool) -> None:
    """Say which figures are worse than the recorded ones, by how fast the machine is now; or record these."""
    if record:
        figures.record()
        out.print(f"recorded {len(figures.taken)} figures in {FILE.name}")
        return
    worse = figures.worse()
    if not worse:
        out.print(f"no figure is more than {WORSE - 1:.0%} worse than the recorded one")
        return
    table = _table(f"more than {WORSE - 1:.0%} worse than recorded", "what", "recorded ms", "now ms", "times")
    for name, then, now in worse:
        table.add_row(name, f"{then:.0f}", f"{now:.0f}", f"{now / then:.2f}")
    out.print(table)


def pace() -> float:
    """Seconds in which the interpreter adds ten million numbers: shared machines are not the same from hour to hour."""
    start, total = perf_counter(), 0
    for number in range(10_000_000):
        total += number
    return perf_counter() - start


def seen(parts: Sequence[Part], look_deg: float) -> tuple[float, list[Face]]:
    """(ms, faces) of visible surfaces and lines with nothing cached but the facets of the bodies."""
    clear_caches()
    frame = Frame.looking(look_deg)
    start = perf_counter()
    faces = visible_faces([face for held in faces_of(parts, frame.dx, frame.dy) for face in held])
    visible_edges(tuple(faces))
    return (perf_counter() - start) * 1000, faces


def one_elevation() -> None:
    """One elevation of the largest demo as a drawing: cold, at an angle, after an edit that touches one wall."""
    project = put(larkmoor_house(), ElevationView(id="oblique", name="At 30", look=120.0))
    parts = len(resolve(project).parts)
    table = _table(f"{project.name}: one elevation of {parts} parts, drawn", "what", "median ms", "worst ms")
    for label, name in (("cold", "elevation:south"), ("cold, at 30°", "elevation:oblique")):
        runs = []
        for _ in range(3):
            clear_caches()
            building = resolve(project)
            building.parts  # noqa: B018
            start = perf_counter()
            draw_view(building, project, name, project.scale)
            runs.append((perf_counter() - start) * 1000)
        table.add_row(label, f"{statistics.median(runs):.0f}", f"{max(runs):.0f}")
    runs = []
    for round_ in range(1, ROUNDS + 1):
        start = perf_counter()
        changed = checked_edits(project, [EDIT_CASES["move a window"](project, round_)])
        draw_view(building_of(changed), changed, "elevation:south", project.scale)
        runs.append((perf_counter() - start) * 1000)
    table.add_row("a window moved, from the edit on", f"{statistics.median(runs):.0f}", f"{max(runs):.0f}")
    out.print(table)


def floors() -> None:
    """A floor with holes cold, and a stair that is edited."""
    table = _table("floors and stairs", "what", "median ms", "worst ms")
    held = [floor_seconds() for _ in range(5)]
    runs = [took for _, took in held]
    table.add_row(f"a floor of {held[0][0]} joists with three holes, cold", *_ends(runs))
    runs = list(stair_seconds(5))
    table.add_row("a stair edited, plan and section drawn", *_ends(runs))
    figures.note("larkmoor, edit the stair", statistics.median(runs), pace())
    out.print(table)


def plans() -> None:
    """What reading plans of files takes."""
    table = _table("plans of files", "what", "entities", "opened s", "read s", "found")
    for run in plan_runs():
        table.add_row(run.name, f"{run.entities:,}", f"{run.opened:.2f}", f"{run.read:.2f}", run.found)
        figures.note(f"plan of {run.entities} entities, {run.name}", (run.opened + run.read) * 1000, pace())
    out.print(table)


def lettering() -> None:
    """What placing all lettering of a view takes, cold."""
    table = _table("lettering of the largest demo, cold", "view", "texts", "median ms", "worst ms")
    for name, count, runs in lettering_seconds(5):
        table.add_row(name, str(count), *_ends(runs))
        figures.note(f"larkmoor, lettering of {name}", statistics.median(runs), pace())
    out.print(table)
    table = _table("a wall dragged: its plan with lettering, shown", "project", "wall", "median ms", "worst ms")
    for make in DEMOS:
        project = make()
        for status in ("outer", "inner"):
            runs = list(drag_seconds(project, status, ROUNDS))
            table.add_row(project.name, status, *_ends(runs))
            figures.note(f"{project.id}, {status} wall dragged", statistics.median(runs), pace())
    out.print(table)


def sections() -> None:
    """Sections after an edit, wall sections, and section lines that are dragged."""
    table = _table("sections of the largest demo, a window moved before", "what", "median ms", "worst ms")
    for name, runs in section_runs(5).items():
        table.add_row(name, *_ends(runs))
        figures.note(f"larkmoor, section {name}", statistics.median(runs), pace())
    six = six_on_a_sheet()
    table.add_row("six wall sections on a sheet, as PDF", *_ends([six]))
    figures.note("larkmoor, six wall sections as PDF", six, pace())
    out.print(table)
    table = _table("a section line dragged: plan and section, shown", "project", "median ms", "redraws a second")
    for make in DEMOS:
        project = make()
        runs = list(section_drags(project, ROUNDS))
        table.add_row(project.name, _ends(runs)[0], f"{1000 / statistics.median(runs):.1f}")
        figures.note(f"{project.id}, section line dragged", statistics.median(runs), pace())
    out.print(table)


def details() -> None:
    """Junctions and details of the largest demo."""
    table = _table("junctions and details of the largest demo, a window moved before", "what", "median ms", "worst ms")
    for name, runs in detail_runs(5).items():
        table.add_row(name, *_ends(runs))
        figures.note(f"larkmoor, {name}", statistics.median(runs), pace())
    whole = all_as_pdf()
    table.add_row("all details on sheets, as PDF", *_ends([whole]))
    figures.note("larkmoor, all details as PDF", whole, pace())
    out.print(table)


def _ends(runs: list[float]) -> tuple[str, str]:
    return f"{statistics.median(runs):.0f}", f"{max(runs):.0f}"


def growth() -> None:
    """Visible surfaces of all parts of more and more houses side by side, on-axis and at 30 degrees."""
    table = _table("visible surfaces and lines of all parts, cold; houses side by side", "parts", "on-axis", "at 30°")
    solid = [part for part in resolve(larkmoor_house()).parts if not part.solid.is_empty]
    for count in (1, 2, 3):
        parts = [shifted(part, 20_000.0 * k) for k in range(count) for part in solid]
        for part in parts:
            part.solid.facets  # noqa: B018
        table.add_row(str(len(parts)), *(f"{seen(parts, look)[0]:.0f} ms" for look in (90.0, 120.0)))
    out.print(table, f"peak memory of the whole run: {peak_mib():.0f} MiB\n")


def hidden_lines() -> None:
    """The engine beside OpenCASCADE's exact hidden-line removal on the same solids, without the building of shapes."""
    if not available():
        out.print("OpenCASCADE is not installed: `make bench` installs it.\n")
        return
    project = hollin_bothy()
    parts = [part for part in resolve(project).parts if not part.solid.is_empty]
    table = _table(f"{project.name}: beside exact hidden lines", "given", "view", "parts", "ours", "theirs", "times")
    for look, name in ((90.0, "on-axis"), (120.0, "at 30°")):
        _, faces = seen(parts, look)
        keys = {face.part.key for face in faces}
        visible = [part for part in parts if part.key in keys]
        for given, held in (("all parts", parts), ("visible parts", visible)):
            own = statistics.median(seen(held, look)[0] for _ in range(3)) / 1000
            solids = solids_of(held)
            for how, shapes in (("", solids), (", as one shape", [as_one(solids)])):
                theirs = hidden_line_seconds(shapes, look)
                row = (given + how, name, str(len(held)), f"{own:.2f} s", f"{theirs:.2f} s", f"{theirs / own:.1f}")
                table.add_row(*row)
    out.print(table, "\n")
    areas(parts)


def areas(parts: Sequence[Part]) -> None:
    """What is seen of each material, and what the exact algorithm's lines enclose of it."""
    table = _table("projected areas per material, m2", "material", "on-axis", "theirs", "at 30°", "theirs")
    found: dict[str, list[float]] = defaultdict(list)
    for look in (90.0, 120.0):
        own: dict[str, float] = defaultdict(float)
        for face in seen(parts, look)[1]:
            own[face.part.material] += face.polygon.area
        theirs = areas_by_material(parts, look)
        if not theirs:
            out.print("OpenCASCADE draws no lines of these bodies on this machine: their areas cannot be compared\n")
            return
        for name in {part.material for part in parts}:
            found[name] += [own.get(name, 0.0), theirs.get(name, 0.0)]
    for name, values in sorted(found.items()):
        if any(values):
            table.add_row(name, *(f"{value / 1e6:.5f}" for value in values))
    off = max(abs(a - b) for values in found.values() for a, b in zip(values[::2], values[1::2]))
    out.print(table, f"they differ by {off:.1f} mm2 at the most\n")


def large_roof() -> None:
    """The planes of roofs over outlines of more and more edges, straight and turned: how the cost grows."""
    table = _table("roof over an outline, all edges at 6 in 12", "edges", "planes", "ms", "turned, to 0.001 mm")
    c, s = math.cos(0.7), math.sin(0.7)
    for outline in (RECTANGLE, L_SHAPE, *(comb(teeth) for teeth in (4, 8, 18, 39))):
        turned = [(round(x * c - y * s, 3), round(x * s + y * c, 3)) for x, y in outline]
        cells = []
        for held in (outline, turned):
            runs = []
            for _ in range(3):
                start = perf_counter()
                found = roof_over(held, [0.5] * len(held))
                runs.append((perf_counter() - start) * 1000)
            cells.append(f"{statistics.median(runs):.1f}")
        table.add_row(str(len(outline)), str(len(found.planes)), *cells)
    out.print(table)


def large_plan() -> None:
    """From an edit to the plan alone, of a plan with 200 walls and 150 openings: previews, not saved."""
    project = row_of_rooms()
    wanted = [ViewWanted(name="plan")]
    title = f"{project.name}: {len(project.walls)} walls, {len(project.openings)} openings, edit to plan alone"
    table = _table(title, "edit", "shown ms", "worst ms", "kB")
    for label, make in (("move a door", move_door), ("move an end of a partition", move_partition)):
        bench_of(project, 1, wanted)
        shown, size = [], 0
        for round_ in range(1, ROUNDS + 1):
            start = perf_counter()
            changed = checked_edits(project, [make(project, round_)])
            size = len(orjson.dumps(bench_of(changed, 1, wanted)))
            shown.append((perf_counter() - start) * 1000)
        table.add_row(label, f"{statistics.median(shown):.0f}", f"{max(shown):.0f}", f"{size / 1024:.0f}")
    out.print(table)


def stages(project: Project) -> None:
    """Each stage of `resolve` with nothing cached, and once more with everything cached."""
    clock, warm = Clock(), Clock()
    for _ in range(ROUNDS):
        clear_caches()
        building = resolve(project, timer=clock)
        resolve(project, timer=warm)
    speed = pace()
    roles = Counter(part.role for part in building.parts)
    table = _table(f"{project.name}: stages", "stage", "cold ms", "warm ms")
    for stage in (*(stage.key.name for stage in STAGES), SOLIDS):
        figures.note(f"{project.id}, stage {stage}", clock.median(stage), speed)
        table.add_row(stage, f"{clock.median(stage):.1f}", f"{warm.median(stage):.2f}")
    out.print(table)
    counted = ", ".join(f"{role} {count}" for role, count in roles.most_common())
    out.print(f"{len(building.parts)} parts: {counted}\n")


def views(project: Project) -> None:
    """Each view of a building whose solids stand, with nothing of the view cached; then again, cached."""
    clock = Clock()
    names = [view.name for view in list_views(project)]
    counts = {}
    for _ in range(ROUNDS):
        clear_caches()
        building = resolve(project)
        for name in names:
            with clock(name):
                counts[name] = len(draw_view(building, project, name, project.scale).marks)
            with clock(f"{name} again"):
                draw_view(building, project, name, project.scale)
    table = _table(f"{project.name}: views at 1:{project.scale:g}", "view", "cold ms", "again ms", "marks")
    speed = pace()
    for name in names:
        figures.note(f"{project.id}, {name} cold", clock.median(name), speed)
        table.add_row(name, f"{clock.median(name):.1f}", f"{clock.median(f'{name} again'):.1f}", str(counts[name]))
    out.print(table, "\n")


def edits(project: Project) -> None:
    """From an edit to plan, elevation and section: checked, saved, drawn and serialised; previews without saving."""
    wanted = [ViewWanted(name=name) for name in ("plan", "elevation:south", f"section:{project.sections[0].id}")]
    title = f"{project.name}: edit to plan + elevation + section"
    table = _table(title, "edit", "saved ms", "worst ms", "preview ms", "kB")
    runs: dict[str, list[float]] = {}
    speed = pace()
    POOL.open(usual_count())
    for label, make in EDIT_CASES.items():
        kept, shown, size = _edit_runs(project, wanted, make)
        runs[label] = kept
        figures.note(f"{project.id}, {label}", statistics.median(kept), speed)
        row = (statistics.median(kept), max(kept), statistics.median(shown), size / 1024)
        table.add_row(label, *(f"{value:.0f}" for value in row))
    POOL.close()
    out.print(table)
    local = statistics.median(one for label in LOCAL for one in runs[label])
    whole = statistics.median(one for kept in runs.values() for one in kept)
    medians = f"edits of one wall or line [bold]{local:.0f} ms[/bold], all edits [bold]{whole:.0f} ms[/bold]"
    out.print(f"median, serialised and saved: {medians}; 10 million additions meanwhile: {pace():.2f} s\n")


def _edit_runs(
    project: Project, wanted: list[ViewWanted], make: Callable[[Project, int], object]
) -> tuple[list[float], list[float], int]:
    kept, shown, size = [], [], 0
    with tempfile.TemporaryDirectory() as folder:
        engine = open_database(f"sqlite:///{Path(folder) / 'bench.db'}")
        store = Store(engine)
        stored = store.create(project, "bench")
        have = held_of(bench_of(stored.project, stored.version, wanted), wanted)
        POOL.wait()
        for round_ in range(1, ROUNDS + 1):
            start = perf_counter()
            previewed = checked_edits(stored.project, [make(project, -round_)])
            orjson.dumps(bench_of(previewed, stored.version, have, stored.project, keep=False))
            shown.append((perf_counter() - start) * 1000)
            start = perf_counter()
            changed = checked_edits(stored.project, [make(project, round_)])
            before = stored.project
            stored = store.append(project.id, stored.version, changed, "bench", "[]")
            made = bench_of(stored.project, stored.version, have, before)
            size = len(orjson.dumps(made))
            kept.append((perf_counter() - start) * 1000)
            have = held_of(made, wanted)
        engine.dispose()
    return kept, shown, size


def _table(title: str, *columns: str) -> Table:
    table = Table(title=title, title_justify="left", title_style="bold")
    for index, column in enumerate(columns):
        table.add_column(column, justify="left" if index == 0 else "right")
    return table


if __name__ == "__main__":
    main()
