"""The API: projects, edits, views, sheets, exports."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import APIRouter, Path, Query, Request
from starlette.concurrency import run_in_threadpool
from starlette.responses import Response

from deepsection.core.edits import EDITS, PutMakeUp, PutSection, SetProject
from deepsection.core.errors import BadLength
from deepsection.core.memo import LruCache
from deepsection.core.particulars import Particulars, enter_all
from deepsection.core.progress import silent
from deepsection.core.sheets import PAPERS, scale_name, standard_scales
from deepsection.core.units import Units, format_length, parse_length
from deepsection.core.view import ComparedRow, plan_name
from deepsection.formats.ifc_model import is_ifc

from . import projects
from .asking import ERRORS, Projects, composed, sheet_called
from .backgrounds import bodies_beside, grey_body, under_plan
from .benches import bench_after
from .files import download
from .keeping import after, as_json, at_base, keep, result_of, state_of
from .plan_choices import choices_from
from .plan_looks import look_at
from .plan_schemas import PlanLook, PlanOut, PlanProgress
from .plans import built_words, plan_in, taken_over
from .schemas import (
    AskIn,
    BackIn,
    Bench,
    EditsIn,
    EntryIn,
    FigureIn,
    HistoryItem,
    Length,
    MakeUpIn,
    MarkIn,
    NewProject,
    NoteIn,
    PlaceIn,
    PreviewIn,
    ProjectChange,
    ProjectItem,
    Result,
    SavedWallIn,
    SheetOut,
    Solids,
    State,
    StepIn,
    UsualPlace,
    Version,
    ViewsIn,
)
from .work import (
    aligning,
    answered,
    checked_edits,
    compared,
    draws_whole,
    figured,
    laid_out,
    noting,
    particulars_of,
    places_of,
    placing,
    prove_parts,
    solids_of,
    standing,
)

router = APIRouter(responses=ERRORS)


# --- projects -----------------------------------------------------------------------------------


@router.get("/projects", response_model=list[ProjectItem], operation_id="list_projects")
def list_projects(store: Projects) -> Any:
    """Every project, the one changed last first."""
    return store.list()


@router.post("/projects", response_model=State, operation_id="create_project")
def create_project(new: NewProject, store: Projects) -> Response:
    """A new project from the starter of its units. 422 when its name is taken."""
    projects.refuse_taken_name(store, new.name)
    return as_json(state_of(projects.start(store, new.name, new.units, new.tradition, new.ground)))


@router.post("/projects/import", response_model=State, operation_id="import_project")
async def import_project(request: Request, store: Projects) -> Response:
    """A project from a project file; it gets an id of its own, and another name when its name is taken."""
    return as_json(state_of(projects.bring_in(store, await request.body())))


@router.post("/projects/{id}/copy", response_model=State, operation_id="copy_project")
def copy_project(id: str, store: Projects) -> Response:
    """A copy of the latest version, under a name of its own; the copy never changes its origin."""
    return as_json(state_of(projects.copy(store, id)))


@router.patch("/projects/{id}", response_model=ProjectItem, operation_id="change_project")
def change_project(id: str, sent: ProjectChange, store: Projects) -> Any:
    """Another name, or archived and restored. 422 when the name is taken."""
    stored = store.load(id)
    if sent.name is not None and sent.name != stored.project.name:
        projects.refuse_taken_name(store, sent.name)
        keep(store, stored, [SetProject(name=sent.name)], [])
    if sent.archived is not None:
        store.archive(id, sent.archived)
    return next(item for item in store.list() if item.id == id)


@router.get("/projects/{id}", response_model=State, operation_id="get_project")
def get_project(id: str, store: Projects) -> Response:
    """The latest version."""
    return as_json(state_of(store.load(id)))


@router.get("/projects/{id}/file", operation_id="project_file")
def project_file(id: str, store: Projects) -> Response:
    """The project as a file."""
    project = store.load(id).project
    return download(projects.as_file(store, project), "application/json", f"{project.name}.deepsection.json")


# --- edits --------------------------------------------------------------------------------------


@router.post("/projects/{id}/edits", response_model=Result, operation_id="edit_project")
def edit_project(id: str, sent: EditsIn, store: Projects) -> Response:
    """A group of edits, kept as one version. 409 when the base version is not the latest."""
    stored = at_base(store, id, sent.base_version)
    return keep(store, stored, sent.edits, sent.views)


@router.post("/projects/{id}/entries", response_model=Result, operation_id="enter_text")
def enter_text(id: str, sent: EntryIn, store: Projects) -> Response:
    """A text typed into a field of the particulars, kept as one version."""
    stored = at_base(store, id, sent.base_version)
    return keep(
        store, stored, enter_all(stored.project, [sent.element, *sent.others], sent.field, sent.text), sent.views
    )


@router.post("/projects/{id}/preview", response_model=Bench, operation_id="preview_edits")
def preview_edits(id: str, sent: PreviewIn, store: Projects) -> Response:
    """Views as they would be after edits; nothing is kept."""
    stored = at_base(store, id, sent.base_version)
    edits = [*sent.edits]
    if sent.entry:
        held = sent.entry
        edits += enter_all(stored.project, [held.element, *held.others], held.field, held.text)
    project = checked_edits(stored.project, edits)
    views = standing(project, sent.views)
    draft = sent.draft and all(isinstance(edit, PutSection) for edit in edits)
    bench = bench_after(
        stored.project, project, stored.version, views, edits, sequence=sent.sequence, keep=False, draft=draft
    )
    return as_json(bench)


@router.post("/projects/{id}/undo", response_model=Result, operation_id="undo")
def undo(id: str, sent: StepIn, store: Projects) -> Response:
    """One step back, as a new version."""
    base = at_base(store, id, sent.base_version).project
    return after(store.step(id, sent.base_version, True), sent.views, base)


@router.post("/projects/{id}/redo", response_model=Result, operation_id="redo")
def redo(id: str, sent: StepIn, store: Projects) -> Response:
    """One step forward again, as a new version."""
    base = at_base(store, id, sent.base_version).project
    return after(store.step(id, sent.base_version, False), sent.views, base)


@router.post("/projects/{id}/make-ups", response_model=Result, operation_id="copy_make_up")
def copy_make_up(id: str, sent: MakeUpIn, store: Projects) -> Response:
    """A make-up of another project, copied into this one; the copy never changes its origin."""
    stored = at_base(store, id, sent.base_version)
    copied = projects.make_up_from(store, stored.project, sent.project, sent.make_up)
    return keep(store, stored, [PutMakeUp(make_up=copied)], sent.views)


@router.post("/projects/{id}/saved-walls", response_model=Result, operation_id="copy_saved_wall")
def copy_saved_wall(id: str, sent: SavedWallIn, store: Projects) -> Response:
    """A saved wall of another project, copied into this one with its make-up."""
    stored = at_base(store, id, sent.base_version)
    edits = projects.saved_wall_from(store, stored.project, sent.project, sent.saved_wall)
    return keep(store, stored, edits, sent.views)


@router.post("/projects/{id}/plan/look", response_model=PlanLook, operation_id="look_at_plan")
async def look_at_floor_plan(
    id: str,
    request: Request,
    store: Projects,
    choices: Annotated[str, Query(max_length=60_000)] = "{}",
    asked: Annotated[str, Query(max_length=40)] = "",
) -> Response:
    """What is found in a floor plan in DXF or a model in IFC, before it is built. `choices`: JSON, as `PlanChoices`.
    `asked`: any name under which its progress can be asked for."""
    body = await request.body()

    def told(step: str, share: float) -> None:
        _progress.put(asked, PlanProgress(step=step, share=round(share, 3)))

    def look() -> Response:
        chosen = choices_from(choices)
        project = store.load(id).project
        return as_json(look_at(project, plan_in(body, chosen, project.units, told if asked else silent), chosen))

    return await run_in_threadpool(look)


_progress: LruCache[str, PlanProgress] = LruCache(size=64)


@router.get("/plan-progress/{asked}", response_model=PlanProgress, operation_id="get_plan_progress")
async def get_plan_progress(asked: Annotated[str, Path(max_length=40)]) -> PlanProgress:
    """How far the reading of a file is that was asked for under a name."""
    return _progress.get(asked) or PlanProgress()


@router.post("/projects/{id}/plan", response_model=PlanOut, operation_id="read_plan")
async def read_floor_plan(
    id: str,
    request: Request,
    store: Projects,
    base_version: Version,
    choices: Annotated[str, Query(max_length=60_000)] = "{}",
) -> Response:
    """A floor plan in DXF or a model in IFC, built into the project as one step; what could not be built is listed."""
    body = await request.body()

    def build() -> Response:
        chosen = choices_from(choices)
        stored = at_base(store, id, base_version)
        plan = plan_in(body, chosen, stored.project.units)
        project, made = taken_over(stored.project, plan, chosen, prefix=f"read{stored.version}")
        if chosen.under and not is_ifc(body):
            laid = under_plan(store, plan, made, plan_name(project, made.level), chosen.under, body)
            project = checked_edits(project, [laid])
            made.edits.append(laid)
        if chosen.rest and is_ifc(body):
            beside = grey_body(store, plan, made, project, chosen.rest, body)
            project = checked_edits(project, [beside])
            made.edits.append(beside)
        prove_parts(stored.project, project, made.edits)
        text = EDITS.dump_json(tuple(made.edits)).decode()
        saved = store.append(stored.project.id, stored.version, project, "read a plan", text)
        return as_json({"state": state_of(saved), "built": built_words(made), "skipped": made.skipped})

    return await run_in_threadpool(build)


# --- history ------------------------------------------------------------------------------------


@router.get("/projects/{id}/history", response_model=list[HistoryItem], operation_id="get_history")
def get_history(id: str, store: Projects) -> Any:
    """What was done, in words, the latest first."""
    return store.history(id)


@router.put("/projects/{id}/history/{version}", response_model=list[HistoryItem], operation_id="name_point")
def name_point(id: str, version: Version, sent: MarkIn, store: Projects) -> Any:
    """A name for a point in the history."""
    store.mark(id, version, sent.mark)
    return store.history(id)


@router.post("/projects/{id}/back", response_model=Result, operation_id="go_back")
def go_back(id: str, sent: BackIn, store: Projects) -> Response:
    """Back to any point, as a new version: nothing in between is lost. Without one, to the last that draws."""
    version = sent.version
    if version is None:
        version = store.last_sound(id, sent.base_version, draws_whole)
    return after(store.back(id, sent.base_version, version), sent.views)


# --- views --------------------------------------------------------------------------------------


@router.post("/projects/{id}/views", response_model=Result, operation_id="draw_views")
def draw_views(id: str, sent: ViewsIn, store: Projects) -> Response:
    """Views of the latest version."""
    return result_of(store.load(id), sent.views)


@router.get("/projects/{id}/compare", response_model=list[ComparedRow], operation_id="compare_views")
def compare_views(id: str, one: str, other: str, store: Projects) -> Response:
    """The heights that two elevations or sections show, row by row. 404 for a view that is not there."""
    return as_json(compared(store.load(id).project, one, other))


@router.get("/projects/{id}/particulars/{element}", response_model=Particulars, operation_id="get_particulars")
def get_particulars(id: str, element: str, store: Projects) -> Response:
    """Everything about one element (or `project`)."""
    return as_json(particulars_of(store.load(id).project, element))


@router.get("/lengths", response_model=Length, operation_id="read_length")
def read_length(text: Annotated[str, Query(max_length=200)], units: Units) -> Any:
    """A typed length or sum, read as it would be taken. Half a sum, while it is typed, is no error of the request."""
    try:
        value = parse_length(text, units)
    except BadLength as error:
        return Length(wrong=error.message)
    return Length(value=value, text=format_length(value, units))


# --- sheets and exports -------------------------------------------------------------------------


@router.get("/projects/{id}/solids", response_model=Solids, operation_id="get_solids")
def get_solids(id: str, store: Projects) -> Response:
    """The house as triangles, for the solid view."""
    stored = store.load(id)
    solids = solids_of(stored.project, stored.version)
    solids["groups"] += bodies_beside(store, stored.project)
    return as_json(solids)


@router.get("/projects/{id}/sheets/{sheet}", response_model=SheetOut, operation_id="get_sheet")
def get_sheet(id: str, sheet: str, store: Projects) -> Any:
    """A sheet: where its views lie, what does not fit, and the scales to choose from."""
    stored = store.load(id)
    held, drawn = composed(stored, sheet)
    units = stored.project.units
    views = {view.id: view.view for view in held.placed}
    placed = []
    for item in drawn.placed:
        x0, y0, x1, y1 = item.box()
        placed.append(
            {
                "id": item.id,
                "view": views[item.id],
                "title": item.drawing.title,
                "scale": item.scale,
                "scale_name": scale_name(item.scale, units),
                "x0": x0,
                "y0": y0,
                "x1": x1,
                "y1": y1,
            }
        )
    return SheetOut(
        id=held.id,
        version=stored.version,
        number=held.number,
        name=held.name,
        paper=held.paper,
        width=drawn.paper.width,
        height=drawn.paper.height,
        placed=placed,  # type: ignore[arg-type]
        messages=[{"placed": id, "message": text} for id, text in drawn.messages],  # type: ignore[misc]
        scales=[{"scale": scale, "name": scale_name(scale, units)} for scale in standard_scales(units)],  # type: ignore[misc]
        papers=list(PAPERS),
    )


@router.post("/projects/{id}/sheets/{sheet}/views", response_model=Result, operation_id="place_view")
def place_view(id: str, sheet: str, sent: PlaceIn, store: Projects) -> Response:
    """A view placed on a sheet at a scale, where there is room for it, kept as one version."""
    stored = at_base(store, id, sent.base_version)
    held = sheet_called(stored.project, sheet)
    return keep(store, stored, [placing(stored.project, held, sent.view, sent.scale)], sent.views)


@router.post("/projects/{id}/sheets/{sheet}/levels", response_model=Result, operation_id="align_on_levels")
def align_on_levels(id: str, sheet: str, sent: StepIn, store: Projects) -> Response:
    """Elevations and sections that stand side by side on a sheet, put on common levels, kept as one version."""
    stored = at_base(store, id, sent.base_version)
    held = sheet_called(stored.project, sheet)
    return keep(store, stored, [aligning(stored.project, held)], sent.views)


@router.post("/projects/{id}/usual-set", response_model=Result, operation_id="lay_out_usual_set")
def lay_out_usual_set(id: str, sent: StepIn, store: Projects) -> Response:
    """Plans, four sides and two sections on sheets, at scales that fit the paper, kept as one version."""
    stored = at_base(store, id, sent.base_version)
    return keep(store, stored, laid_out(stored.project), sent.views, "lay out the usual set of sheets")


@router.get("/projects/{id}/usual-places", response_model=list[UsualPlace], operation_id="get_usual_places")
def get_usual_places(id: str, store: Projects) -> Any:
    """Wall sections that are usual and not there yet, each with what it would show."""
    found = places_of(store.load(id).project)
    return [UsualPlace(wall_section=held.wall_section, shows=held.shows) for held in found]


@router.post("/projects/{id}/engineer", response_model=Result, operation_id="ask_engineer")
def ask_engineer(id: str, sent: AskIn, store: Projects) -> Response:
    """The engineer's comments on a structural plan, kept as one version: those of an answer that came as a file, or of
    the simulated engineer, who is sent the plan as DXF."""
    stored = at_base(store, id, sent.base_version)
    return keep(store, stored, answered(stored.project, sent.view, sent.answer), sent.views)


@router.post("/projects/{id}/figures", response_model=Result, operation_id="set_figure")
def set_figure(id: str, sent: FigureIn, store: Projects) -> Response:
    """What a figure measures made as long as was typed, kept as one version. 422 where it moves nothing."""
    stored = at_base(store, id, sent.base_version)
    return keep(store, stored, figured(stored.project, sent), sent.views)


@router.post("/projects/{id}/notes", response_model=Result, operation_id="tie_note")
def tie_note(id: str, sent: NoteIn, store: Projects) -> Response:
    """A note tied to what lies at a place of a view, kept as one version: a new one, or one that is tied again."""
    stored = at_base(store, id, sent.base_version)
    return keep(store, stored, [noting(stored.project, sent)], sent.views)
