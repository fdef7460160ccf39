import type { Edit } from "../api/client";
import { usual } from "../usual";
import { OnePoint } from "./onePoint";
import { type Kind, numberOf, type Opening } from "./openings";
import {
  EMPTY,
  newId,
  type Outcome,
  type Overlay,
  type Place,
  type PlanAction,
  type Project,
  type Storey,
  type Turn,
  toPlan,
  type Under,
} from "./types";

/** Usual heads above the floor: in line for windows and doors, lower for niches. */
const HEADS = { window: "opening_head", door: "opening_head", niche: "niche_head" } as const;

/** Places windows, doors or niches on walls, one click each: of a kind, or of their own. */
export class PlaceOpening extends OnePoint {
  protected readonly made: string;
  protected readonly missing: string;
  protected readonly hint: string;

  constructor(
    private readonly project: Project,
    private readonly unit: "window" | "door" | "niche",
    private readonly kind: Kind | null = null,
  ) {
    super();
    this.made = newId(unit);
    this.missing = `A ${unit} needs a wall. Point at one and click.`;
    this.hint = `Point at a wall and click to place a ${unit}; or type its distance from the start of the wall.`;
  }

  protected get width(): number {
    return this.size().width;
  }

  private size(): { width: number; height: number } {
    if (this.kind) return this.kind.design;
    const units = this.project.units;
    if (this.unit === "door") return { width: usual("door_width", units), height: usual("door_height", units) };
    return { width: usual("window_width", units), height: usual("window_height", units) };
  }

  protected edit(place: Place): Edit | null {
    if (place.wall === undefined || place.along === undefined) return null;
    const wall = this.project.walls?.find((wall) => wall.id === place.wall);
    const { height } = this.size();
    const setBack = this.project.tradition === "masonry" && wall?.status === "outer" && this.unit !== "niche";
    const head = usual(HEADS[this.unit], this.project.units);
    const opening: Opening = {
      id: this.made,
      state: "new",
      wall: place.wall,
      end: "start",
      distance: Math.round(place.along * 1e6) / 1e6,
      sill: this.unit === "door" ? 0 : Math.max(head - height, 0),
      unit: this.unit,
      stays: "centre",
      hinge: "start",
      swing: "in",
      drawn_swing: 90,
      set_in: { layer: null, face: "outer", distance: setBack ? 70 : 0 },
      ...(this.kind ? this.ofKind(this.kind, wall?.status) : this.ofItsOwn(setBack || wall?.status === "inner")),
    };
    return { kind: "put_opening", opening };
  }

  /** Boards around it belong to outer walls alone. */
  private ofKind(kind: Kind, status: "outer" | "inner" | undefined) {
    return { kind: kind.id, ...(status === "inner" && kind.design.trim !== 0 ? { trim: 0 } : {}) };
  }

  private ofItsOwn(plain: boolean) {
    const letter = { window: "W", door: "D", niche: "N" }[this.unit];
    const taken = (this.project.openings ?? []).map((opening) => numberOf(this.project, opening));
    return {
      ...this.size(),
      number: nextNumber(letter, taken),
      ...(this.unit === "window" ? { bars_across: 2, bars_up: 2 } : {}),
      trim: plain ? 0 : usual("trim_width", this.project.units),
    };
  }
}

/** Places a wall section on a wall with one click, its outside at the left. */
export class PlaceWallSection extends OnePoint {
  protected readonly made = newId("wall-section");
  protected readonly missing = "A wall section needs a wall. Point at one and click.";
  protected readonly hint = "Point at a wall and click to cut it there; or type the distance from its start.";

  constructor(private readonly project: Project) {
    super();
  }

  protected get width(): number {
    return 0;
  }

  protected edit(place: Place): Edit | null {
    const wall = this.project.walls?.find((held) => held.id === place.wall);
    if (!wall || place.along === undefined) return null;
    const distance = Math.round(place.along * 1e6) / 1e6;
    const look = wall.outside === "left" ? "end" : "start";
    const name = nextNumber(
      "",
      (this.project.wall_sections ?? []).map((held) => held.name),
    );
    const held = { id: this.made, name, wall: wall.id, end: "start" as const, distance, look: look as "start" | "end" };
    return { kind: "put_wall_section", wall_section: held as WallSection };
  }
}

export type WallSection = NonNullable<Project["wall_sections"]>[number];

/** The next free number: W1, W2, ... */
export function nextNumber(letter: string, taken: string[]): string {
  let n = 1;
  while (taken.includes(`${letter}${n}`)) n += 1;
  return `${letter}${n}`;
}

/** Names a room where one clicks. */
export class PlaceRoom implements PlanAction {
  constructor(
    private readonly project: Project,
    private readonly turn: Turn,
    private readonly storey: Storey,
  ) {}

  start(): Outcome {
    return { overlay: EMPTY, hint: "Click inside a room to name it." };
  }

  move(place: Place): Outcome {
    return { ...this.start(), overlay: { lines: [], dots: [place] } };
  }

  click(place: Place): Outcome {
    const id = newId("room");
    const name = `Room ${(this.project.rooms?.length ?? 0) + 1}`;
    return {
      ...this.start(),
      edits: [
        { kind: "put_room", room: { id, name, ...toPlan(this.turn, place.u, place.w), level: this.storey.level } },
      ],
      done: { select: id },
    };
  }

  length(): Outcome {
    return this.start();
  }

  key(): Outcome | null {
    return null;
  }
}

/** Places posts, one click each, from the floor of the storey to its plate. */
export class PlacePost extends OnePoint {
  protected readonly made = newId("post");
  protected readonly hint = "Click where the post stands; its particulars take sizes and heights.";

  constructor(
    private readonly project: Project,
    private readonly turn: Turn,
    private readonly storey: Under,
  ) {
    super();
  }

  protected edit(place: Place): Edit {
    const end = (level: string) => ({ level, offset: 0 });
    const { units, foundations } = this.project;
    const onGround = foundations?.some((held) => held.slab_level === this.storey.level);
    return {
      kind: "put_post",
      post: {
        id: this.made,
        state: "new",
        ...toPlan(this.turn, place.u, place.w),
        shape: "square",
        width: usual("post_width", units),
        depth: null,
        turn: 0,
        material: "softwood",
        base: end(this.storey.level),
        top: { level: this.storey.plate ?? "", offset: -(this.storey.lower ?? 0) },
        pad:
          onGround || this.storey.lower
            ? { width: usual("pad_width", units), thickness: usual("pad_thickness", units) }
            : null,
      },
    };
  }
}

/** Two points: the ends of a section line, or opposite corners of a roof. */
export abstract class TwoPoints implements PlanAction {
  protected first: Place | null = null;
  protected second: Place | null = null;

  constructor(
    protected readonly project: Project,
    protected readonly turn: Turn,
  ) {}

  get from(): Place | null {
    return this.first;
  }

  start(): Outcome {
    return this.shown();
  }

  move(place: Place): Outcome {
    if (this.first) this.second = place;
    return this.shown();
  }

  click(place: Place): Outcome {
    if (!this.first) {
      this.first = place;
      return this.shown();
    }
    this.second = place;
    const made = this.make(this.first, place);
    if (typeof made === "string") return { ...this.shown(), wrong: made };
    return { ...this.shown(), preview: undefined, edits: [made.edit], done: { select: made.id } };
  }

  length(mm: number): Outcome {
    if (!this.first || !this.second) return { ...this.shown(), wrong: "Click the first point, then type a length." };
    const du = this.second.u - this.first.u;
    const dw = this.second.w - this.first.w;
    const length = Math.hypot(du, dw) || 1;
    return this.click({ u: this.first.u + (du / length) * mm, w: this.first.w + (dw / length) * mm, label: "typed" });
  }

  key(key: string): Outcome | null {
    if (key !== "Escape" || !this.first) return null;
    this.first = null;
    this.second = null;
    return this.shown();
  }

  protected shown(): Outcome {
    const made = this.first && this.second ? this.make(this.first, this.second) : null;
    return {
      overlay: this.first ? this.lines(this.first, this.second ?? this.first) : EMPTY,
      hint: this.first ? this.hints[1] : this.hints[0],
      preview: made && typeof made !== "string" ? [made.edit] : undefined,
      asks: this.first ? this.hints[2] : undefined,
    };
  }

  protected abstract readonly hints: [string, string, string];

  protected lines(a: Place, b: Place): Overlay {
    return { lines: [{ u1: a.u, w1: a.w, u2: b.u, w2: b.w }], dots: [a] };
  }

  protected abstract make(a: Place, b: Place): { id: string; edit: Edit } | string;
}

export class DrawSection extends TwoPoints {
  private readonly id = newId("section");
  protected readonly hints: [string, string, string] = [
    "Click where the section line begins, outside the house.",
    "Click where it ends; the section below follows. Escape begins again.",
    "length of the section line",
  ];

  protected make(a: Place, b: Place) {
    if (Math.hypot(a.u - b.u, a.w - b.w) < 300) return "A section line needs two points that lie apart.";
    const p = toPlan(this.turn, a.u, a.w);
    const q = toPlan(this.turn, b.u, b.w);
    const taken = (this.project.sections ?? []).map((line) => line.name);
    const name = [..."ABCDEFGHJKLMNPQRSTUVWXYZ"].find((letter) => !taken.includes(letter)) ?? `S${taken.length + 1}`;
    const section = {
      id: this.id,
      name,
      x1: p.x,
      y1: p.y,
      x2: q.x,
      y2: q.y,
      look: "left" as const,
      depth: 50_000,
      members: false,
      steps: [],
    };
    return { id: this.id, edit: { kind: "put_section" as const, section } };
  }
}

/** What stands and lies under the floor of a storey, or under a deck: from the level below it up to what its joists
 * bear on. */
export function carrying(project: Project, storeys: Storey[], storey: Storey, framed: string | null = null): Under {
  const deck = project.decks?.find((held) => held.id === framed);
  if (deck) {
    const layers = project.make_ups?.find((held) => held.id === deck.make_up)?.layers ?? [];
    const joists = layers.findIndex((layer) => layer.framing);
    const depth = layers.slice(0, joists + 1).reduce((sum, layer) => sum + layer.thickness, 0);
    const grade = project.rungs?.find((rung) => rung.surface === "grade")?.id ?? storey.level;
    return { ...storey, level: grade, plate: deck.level, lower: (deck.drop ?? 0) + depth };
  }
  const floor = project.floors?.find((held) => held.level === storey.level);
  if (!floor) return storey;
  const below = storeys.find((held) => held.plate === floor.bearing);
  const ground = project.foundations?.find((held) => held.level === floor.level)?.slab_level;
  return { ...storey, level: below?.level ?? ground ?? floor.bearing, plate: floor.bearing };
}

/** Two points on a storey. */
abstract class OnStorey extends TwoPoints {
  constructor(
    project: Project,
    turn: Turn,
    protected readonly storey: Under,
  ) {
    super(project, turn);
  }
}

/** A beam between two posts, or two points, its top at the plate of the storey. */
export class DrawBeam extends OnStorey {
  private readonly id = newId("beam");

  protected readonly hints: [string, string, string] = [
    "Click a post or a point where the beam begins.",
    "Click the post or point where it ends. Escape begins again.",
    "length of the beam",
  ];

  protected make(a: Place, b: Place) {
    const [from, to] = [this.end(a), this.end(b)];
    const near = Math.hypot(a.u - b.u, a.w - b.w) < 50;
    if (near || (from.post && from.post === to.post)) return "A beam needs two ends that lie apart.";
    const units = this.project.units;
    const beam = {
      id: this.id,
      state: "new" as const,
      start: from,
      end: to,
      width: usual("beam_width", units),
      depth: usual("beam_depth", units),
      plies: 1,
      material: "softwood",
      top: { level: this.storey.plate ?? "", offset: -(this.storey.lower ?? 0) },
    };
    return { id: this.id, edit: { kind: "put_beam" as const, beam } };
  }

  /** At a post when the place lies in one. */
  private end(place: Place): { post: string | null; x: number; y: number; past: number } {
    const { x, y } = toPlan(this.turn, place.u, place.w);
    const post = this.project.posts?.find((held) => Math.hypot(held.x - x, held.y - y) <= Math.max(held.width, 150));
    return { post: post?.id ?? null, x, y, past: 0 };
  }
}

/** A level rail between two points, on the floor of the storey. */
export class DrawRail extends OnStorey {
  private readonly id = newId("rail");

  protected readonly hints: [string, string, string] = [
    "Click where the rail begins.",
    "Click where it ends. Escape begins again.",
    "length of the rail",
  ];

  protected make(a: Place, b: Place) {
    if (Math.hypot(a.u - b.u, a.w - b.w) < 200) return "A rail needs two ends that lie apart.";
    const [p, q] = [toPlan(this.turn, a.u, a.w), toPlan(this.turn, b.u, b.w)];
    const units = this.project.units;
    const rail = {
      id: this.id,
      state: "new" as const,
      x1: p.x,
      y1: p.y,
      x2: q.x,
      y2: q.y,
      base: { level: this.storey.level, offset: 0 },
      height: usual("rail_height", units),
      gap: usual("rail_gap", units),
      material: "softwood",
    };
    return { id: this.id, edit: { kind: "put_rail" as const, rail } };
  }
}
