import type { Drawing, Edit, Handle } from "../api/client";
import { lengthOf, placeOn } from "./arc";
import { numberOf, widthOf } from "./openings";
import { annotationOf, annotationWith, stringOf, stringWith } from "./shown";
import type { Project, Snaps, Turn } from "./types";
import { toPlan } from "./types";

/** A drag of a mark: from the shift of the pointer, in real mm of the pane, to edits. */
export interface Drag {
  hint: string;
  /** Which way of the pointer counts in a view, where that is not said by the axis of its handle. */
  way?: (du: number, dw: number) => "across" | "up";
  /** What it lies on now, where it has come to lie on something. */
  snapped?: string;
  edits(du: number, dw: number): Edit[];
}

interface Axis {
  au: number;
  aw: number;
  length: number;
}

/** Where a wall runs: on an arc, at a distance along it, or along its chord. */
function wallAxis(snaps: Snaps, wall: string, along?: (length: number) => number): Axis | null {
  const line = snaps.axes.find((line) => line.wall === wall);
  if (!line) return null;
  const length = lengthOf(line);
  if (along === undefined) {
    const chord = Math.hypot(line.u2 - line.u1, line.w2 - line.w1);
    return { au: (line.u2 - line.u1) / chord, aw: (line.w2 - line.w1) / chord, length };
  }
  const { du, dw } = placeOn(line, along(length));
  return { au: du, aw: dw, length };
}

/** The drag that a handle stands for; in a projected view only the shift along u counts. */
export function dragOf(
  handle: Handle,
  project: Project,
  snaps: Snaps,
  turn: Turn,
  grid: number,
  projected: boolean,
  alone = false,
): Drag | null {
  const step = (value: number) => Math.round(value / grid) * grid;
  if (handle.edit === "move_opening") {
    const opening = project.openings?.find((held) => held.id === handle.element);
    const along = (length: number) => (opening?.end === "end" ? length - opening.distance : (opening?.distance ?? 0));
    const axis = opening && wallAxis(snaps, opening.wall, along);
    if (!opening || !axis) return null;
    const width = widthOf(project, opening);
    const sign = opening.end === "start" ? 1 : -1;
    // In a view a window goes up and down as well: by the greater part of the drag, never by both.
    const upward = (du: number, dw: number) => projected && opening.unit === "window" && Math.abs(dw) > Math.abs(du);
    return {
      hint: `Drag ${numberOf(project, opening)} along its wall${upward(0, 1) ? ", or up and down" : ""}; its particulars take a typed distance.`,
      way: (du, dw) => (upward(du, dw) ? "up" : "across"),
      edits: (du, dw) => {
        if (upward(du, dw))
          return [{ kind: "put_opening", opening: { ...opening, sill: Math.max(0, opening.sill + step(dw)) } }];
        const along = projected ? (Math.abs(axis.au) < 0.05 ? 0 : du / axis.au) : du * axis.au + dw * axis.aw;
        const reach = Math.max(width / 2, Math.min(axis.length - width / 2, opening.distance + sign * step(along)));
        return [{ kind: "move_opening", opening: opening.id, distance: reach }];
      },
    };
  }
  if (handle.edit === "move_wall_section") {
    const held = project.wall_sections?.find((own) => own.id === handle.element);
    const along = (length: number) => (held?.end === "end" ? length - held.distance : (held?.distance ?? 0));
    const axis = held && wallAxis(snaps, held.wall, along);
    if (!held || !axis) return null;
    return {
      hint: `Drag wall section ${held.name} along its wall; the section below follows.`,
      edits: (du, dw) => {
        const by = step(du * axis.au + dw * axis.aw) * (held.end === "start" ? 1 : -1);
        const distance = Math.max(0, Math.min(axis.length, held.distance + by));
        return [{ kind: "put_wall_section", wall_section: { ...held, distance } }];
      },
    };
  }
  if (handle.edit === "move_break") {
    const held = project.wall_sections?.find((own) => own.id === handle.element);
    const [which, ...stated] = handle.field.split(";");
    if (!held) return null;
    const breaks = stated.map((one) => {
      const [level = "", above, tall] = one.split(",");
      return { level, above: Number(above), tall: Number(tall) };
    });
    return {
      hint: "Drag the break up or down; on paper it stops before what matters. Its particulars take typed heights.",
      edits: (_, dw) => {
        const moved = breaks.map((one, k) => (k === Number(which) ? { ...one, above: one.above + step(dw) } : one));
        return [{ kind: "put_wall_section", wall_section: { ...held, breaks: moved } }];
      },
    };
  }
  if (handle.edit === "move_inside_break") {
    const held = project.wall_sections?.find((own) => own.id === handle.element);
    const [first = "", ...stated] = handle.field.split(";");
    const [which, out] = first.split(",").map(Number);
    if (!held) return null;
    const breaks = stated.map((one) => {
      const [inward, wide] = one.split(",").map(Number);
      return { inward: inward ?? 0, wide: wide ?? 0 };
    });
    return {
      hint: "Drag the break sideways; on paper it stops before what matters. Its particulars take typed lengths.",
      edits: (du) => {
        const by = step(-du * (out ?? 1));
        const moved = breaks.map((one, k) => (k === which ? { ...one, inward: Math.max(0, one.inward + by) } : one));
        return [{ kind: "put_wall_section", wall_section: { ...held, inside_breaks: moved } }];
      },
    };
  }
  if (handle.edit === "move_wall") {
    const axis = wallAxis(snaps, handle.element);
    if (!axis) return null;
    return {
      hint: "Drag the wall sideways; walls that meet it stretch. With Alt, one piece of a side goes alone.",
      edits: (du, dw) => {
        const across = step(-du * axis.aw + dw * axis.au);
        const { x, y } = toPlan(turn, -axis.aw * across, axis.au * across);
        return [{ kind: "move_wall", wall: handle.element, dx: x, dy: y, alone }];
      },
    };
  }
  if (handle.edit === "move_roof_edge") {
    const edge = handle.field;
    const side = snaps.sides.find((held) => held.roof === handle.element && held.edge === edge);
    if (!side) return null;
    return {
      hint: "Drag the edge of the roof out or in; its corners leave the walls that they were tied to.",
      edits: (du, dw) => [
        { kind: "move_roof_edge", roof: handle.element, edge, by: step(du * side.du + dw * side.dw) },
      ],
    };
  }
  if (handle.edit === "move_ridge") {
    const [first = "", second = ""] = handle.field.split(":");
    const side = snaps.sides.find((held) => held.roof === handle.element && held.edge === first);
    if (!side) return null;
    return {
      hint: "Drag the ridge across: it keeps its height, and the two pitches change.",
      edits: (du, dw) => [
        { kind: "move_ridge", roof: handle.element, edges: [first, second], by: -step(du * side.du + dw * side.dw) },
      ],
    };
  }
  if (handle.edit === "move_post") {
    const post = project.posts?.find((held) => held.id === handle.element);
    if (!post) return null;
    return {
      hint: "Drag the post; its beams follow.",
      edits: (du, dw) => {
        const by = toPlan(turn, step(du), projected ? 0 : step(dw));
        return [{ kind: "put_post", post: { ...post, x: post.x + by.x, y: post.y + by.y } }];
      },
    };
  }
  const floor = project.floors?.find((own) => own.id === handle.element);
  const deck = project.decks?.find((own) => own.id === handle.element);
  const joisted = floor ?? deck;
  if (joisted && handle.edit === "shift_joists") {
    const across = (Number(handle.field) * Math.PI) / 180;
    return {
      hint: "Drag the joists sideways: their layout begins there. J turns them.",
      edits: (du, dw) => {
        const by = toPlan(turn, du, dw);
        const shift = joisted.shift + step(by.x * Math.cos(across) + by.y * Math.sin(across));
        if (deck) return [{ kind: "put_deck", deck: { ...deck, shift } }];
        return floor ? [{ kind: "put_floor", floor: { ...floor, shift } }] : [];
      },
    };
  }
  if (deck) {
    return {
      hint: "Drag the deck; what comes to lie within the house falls away. Posts and rails stay.",
      edits: (du, dw) => {
        const by = toPlan(turn, step(du), projected ? 0 : step(dw));
        const corners = deck.corners.map((corner) => ({ ...corner, x: corner.x + by.x, y: corner.y + by.y }));
        return [{ kind: "put_deck", deck: { ...deck, corners } }];
      },
    };
  }
  const stair = project.stairs?.find((own) => own.id === handle.element);
  if (stair) {
    if (handle.edit === "stair_going") {
      const [going, treads, heading] = handle.field.split(":").map(Number);
      const way = { x: Math.cos((heading * Math.PI) / 180), y: Math.sin((heading * Math.PI) / 180) };
      return {
        hint: "Drag the last riser along the stair: every going becomes longer or shorter.",
        edits: (du, dw) => {
          const by = toPlan(turn, du, projected ? 0 : dw);
          const longer = going + step(by.x * way.x + by.y * way.y) / treads;
          return [{ kind: "put_stair", stair: { ...stair, going: Math.min(1000, Math.max(100, longer)) } }];
        },
      };
    }
    return {
      hint: "Drag the stair; the hole above goes along.",
      edits: (du, dw) => [{ kind: "put_stair", stair: moved(stair, toPlan(turn, step(du), projected ? 0 : step(dw))) }],
    };
  }
  const hatch = project.loft_hatches?.find((held) => held.id === handle.element);
  if (hatch) {
    return {
      hint: "Drag the hatch; joists and boards follow.",
      edits: (du, dw) => [
        { kind: "put_loft_hatch", hatch: moved(hatch, toPlan(turn, step(du), projected ? 0 : step(dw))) },
      ],
    };
  }
  const outlined = outlinedBy(project, handle.element);
  if (outlined) {
    return {
      hint: outlined.hint,
      edits: (du, dw) => {
        const by = toPlan(turn, step(du), projected ? 0 : step(dw));
        return [outlined.edit(([x, y]) => [x + by.x, y + by.y])];
      },
    };
  }
  const steps = project.outside_steps?.find((held) => held.id === handle.element);
  const rail = project.rails?.find((held) => held.id === handle.element);
  if (steps || rail) {
    return {
      hint: steps ? "Drag the steps; they lead down to the ground where they stand." : "Drag the rail.",
      edits: (du, dw) => {
        const by = toPlan(turn, step(du), projected ? 0 : step(dw));
        if (steps) return [{ kind: "put_outside_steps", steps: moved(steps, by) }];
        if (!rail) return [];
        const { x1, y1, x2, y2 } = rail;
        return [{ kind: "put_rail", rail: { ...rail, x1: x1 + by.x, y1: y1 + by.y, x2: x2 + by.x, y2: y2 + by.y } }];
      },
    };
  }
  const chimney = project.chimneys?.find((held) => held.id === handle.element);
  const fitting = project.fittings?.find((held) => held.id === handle.element);
  if (chimney || fitting) {
    return {
      hint: "Drag it over the roof; heights follow the slope.",
      edits: (du, dw) => {
        const by = toPlan(turn, step(du), projected ? 0 : step(dw));
        if (chimney) return [{ kind: "put_chimney", chimney: moved(chimney, by) }];
        return fitting ? [{ kind: "put_fitting", fitting: moved(fitting, by) }] : [];
      },
    };
  }
  const pipe = project.downpipes?.find((held) => held.id === handle.element);
  if (pipe) {
    const side = snaps.sides.find((held) => held.roof === pipe.roof && held.edge === pipe.edge);
    if (!side) return null;
    return {
      hint: "Drag the downpipe along its eave.",
      edits: (du, dw) => {
        // The eave runs a quarter turn to the left of the way out.
        const along = step(-du * side.dw + dw * side.du);
        return [{ kind: "put_downpipe", pipe: { ...pipe, distance: Math.max(0, pipe.distance + along) } }];
      },
    };
  }
  const wall = project.walls?.find((held) => held.id === handle.element);
  if (handle.edit === "move_top" && wall) return topDrag(wall, step);
  const roof = project.roofs?.find((held) => held.id === handle.element);
  if (handle.edit === "raise_eave" && roof) return eaveDrag(roof, handle.field, step, alone);
  if (handle.edit === "raise_ridge" && roof) return ridgeDrag(roof, Number(handle.field), project.units);
  if (handle.edit === "move_section") return sectionDrag(handle.element, project, turn, step, null);
  return null;
}

/** The top of a wall, up or down: its height where it has one of its own, else how far it lies off its plate. */
function topDrag(wall: NonNullable<Project["walls"]>[number], step: (value: number) => number): Drag {
  return {
    hint: "Drag the top of the wall up or down; its particulars take a typed height.",
    edits: (_, dw) => {
      const by = step(dw);
      const own = wall.top.kind === "fixed" && wall.top.height != null;
      const top = own
        ? { ...wall.top, height: Math.max(1, (wall.top.height ?? 0) + by) }
        : { ...wall.top, offset: wall.top.offset + by };
      return [{ kind: "put_wall", wall: { ...wall, top } }];
    },
  };
}

type Moved = (corner: [number, number]) => [number, number];

/** What is drawn by its corners, and the edit that moves these. */
function outlinedBy(project: Project, id: string): { hint: string; edit: (to: Moved) => Edit } | null {
  const hole = project.floor_holes?.find((held) => held.id === id);
  if (hole)
    return {
      hint: "Drag the hole; the joists follow.",
      edit: (to) => ({ kind: "put_floor_hole", hole: { ...hole, corners: hole.corners.map(to) } }),
    };
  const down = project.set_downs?.find((held) => held.id === id);
  if (down)
    return {
      hint: "Drag the set-down within the slab.",
      edit: (to) => ({ kind: "put_set_down", set_down: { ...down, corners: down.corners.map(to) } }),
    };
  const slab = project.porch_slabs?.find((held) => held.id === id);
  if (!slab) return null;
  return {
    hint: "Drag the slab; what comes to lie within the house falls away.",
    edit: (to) => ({ kind: "put_porch_slab", slab: { ...slab, corners: slab.corners.map(to) } }),
  };
}

/** An eave, up or down: this one alone, or with Alt the whole roof. */
function eaveDrag(
  roof: NonNullable<Project["roofs"]>[number],
  edge: string,
  step: (value: number) => number,
  whole: boolean,
): Drag {
  return {
    hint: "Drag the eave up or down; with Alt the whole roof goes along.",
    edits: (_, dw) => {
      if (whole) return [{ kind: "put_roof", roof: { ...roof, offset: roof.offset + step(dw) } }];
      const edges = roof.edges.map((held) => (held.id === edge ? { ...held, raised: held.raised + step(dw) } : held));
      return [{ kind: "put_roof", roof: { ...roof, edges } }];
    },
  };
}

/** The pitches that a drag stops at: quarters of an inch in twelve, half degrees. */
function wholePitch(pitch: number, units: Project["units"]): number {
  if (units === "ft-in") return Math.max(1, Math.round(pitch * 48)) / 48;
  const degrees = Math.max(0.5, Math.round((Math.atan(pitch) * 360) / Math.PI) / 2);
  return Math.tan((degrees * Math.PI) / 180);
}

/** A ridge, up or down: all pitches of its roof change, and nothing of its plan. */
function ridgeDrag(roof: NonNullable<Project["roofs"]>[number], rise: number, units: Project["units"]): Drag {
  return {
    hint: "Drag the ridge up or down: the pitches of its roof change.",
    edits: (_, dw) => {
      const pitch = wholePitch((roof.pitch * Math.max(rise + dw, 1)) / rise, units);
      return [{ kind: "steepen_roof", roof: roof.id, factor: pitch / roof.pitch }];
    },
  };
}

/** From its place to the first letter of a note that nobody has moved (paper mm). */
const NOTE_OFF = [15, 12] as const;

/** A note: its text goes where it is dragged, its leader still ends on what it points at. */
export function noteDrag(note: NonNullable<Project["notes"]>[number], { scale, shifts }: Drawing): Drag {
  const [, right, up] = shifts?.find(([of]) => of === `note:${note.id}`) ?? ["", 0, 0];
  const [dx, dy] = note.offset ?? [NOTE_OFF[0] + right, NOTE_OFF[1] + up];
  return {
    hint: "Drag the note; its line still ends on what it points at.",
    edits: (du, dw) => [
      { kind: "put_note", note: { ...note, offset: [dx + paper(du, scale), dy + paper(dw, scale)] } },
    ],
  };
}

/** On which way each string of dimensions leads away from what it measures. */
const OUTWARDS: Record<string, [number, number]> = {
  left: [-1, 0],
  right: [1, 0],
  top: [0, 1],
  bottom: [0, -1],
  "inside:across": [0, 1],
  "inside:along": [-1, 0],
};

/** A string of dimensions, moved away from what it measures or nearer to it. */
export function stringDrag(project: Project, { name: view, scale }: Drawing, string: string): Drag {
  const { away } = stringOf(project, view, string);
  const [right, up] = OUTWARDS[string] ?? OUTWARDS[string.split(":")[0]] ?? [0, 0];
  return {
    hint: "Drag the string away from what it measures, or nearer to it.",
    edits: (du, dw) => [stringWith(project, view, string, { away: away + paper(du * right + dw * up, scale) })],
  };
}

/** Lettering that a view writes by itself, moved on paper. */
export function letteringDrag(project: Project, drawing: Drawing, key: string): Drag {
  const { name: view, scale } = drawing;
  const own = annotationOf(project, view, key);
  // What stands elsewhere for want of room is dragged from there.
  const [, right, up] = drawing.shifts?.find(([of]) => of === key) ?? [key, 0, 0];
  const held = own.dx || own.dy ? own : { dx: right, dy: up };
  return {
    hint: "Drag it where it reads best; it still follows what it speaks of.",
    edits: (du, dw) => [
      annotationWith(project, view, key, { dx: held.dx + paper(du, scale), dy: held.dy + paper(dw, scale) }),
    ],
  };
}

/** Real mm as paper mm, in halves. */
function paper(value: number, scale: number): number {
  return Math.round((value / scale) * 2) / 2;
}

function moved<T extends { x: number; y: number }>(held: T, by: { x: number; y: number }): T {
  return { ...held, x: held.x + by.x, y: held.y + by.y };
}

/** Drags a whole section line sideways, or one of its ends freely. */
export function sectionDrag(
  id: string,
  project: Project,
  turn: Turn,
  step: (value: number) => number,
  end: "start" | "end" | null,
): Drag | null {
  const line = project.sections?.find((held) => held.id === id);
  if (!line) return null;
  return {
    hint: end ? "Drag the end of the section line." : "Drag the section line; the section below follows.",
    edits: (du, dw) => {
      const shift = toPlan(turn, du, dw);
      const moved = { ...line };
      if (end) {
        const keys = end === "start" ? (["x1", "y1"] as const) : (["x2", "y2"] as const);
        moved[keys[0]] += step(shift.x);
        moved[keys[1]] += step(shift.y);
      } else {
        const length = Math.hypot(line.x2 - line.x1, line.y2 - line.y1) || 1;
        const nx = -(line.y2 - line.y1) / length;
        const ny = (line.x2 - line.x1) / length;
        const across = step(shift.x * nx + shift.y * ny);
        for (const [kx, ky] of [
          ["x1", "y1"],
          ["x2", "y2"],
        ] as const) {
          moved[kx] += nx * across;
          moved[ky] += ny * across;
        }
      }
      return [{ kind: "put_section", section: moved }];
    },
  };
}
