import { useCallback, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { usePlanLook, usePlanProgress } from "../../api/queries";
import { useHeld } from "../../useProject";

export type Look = Schemas["PlanLook"];

/** What is chosen by the numbers of walls, openings and stairs of the plan. */
type Numbered = "without_walls" | "without_openings" | "without_stairs" | "back_walls" | "back_openings";

export type Spot = [number, number];

/** What somebody chose of a plan, as the service takes it. */
export interface Choices {
  unit: string | null;
  measured: number | null;
  says: string;
  layers: Record<string, string>;
  make_ups: Record<string, string>;
  without_walls: number[];
  without_openings: number[];
  without_stairs: number[];
  /** Places between the faces of walls that were not found. */
  pointed: Spot[];
  /** Openings that were not found, by both ends. */
  marked: { start: Spot; end: Spot; kind: "window" | "door" | "opening" }[];
  storeys: Record<string, string>;
  rooms: boolean;
  grids: boolean;
  roofs: boolean;
  /** The name of the file, where it stays under the plan. */
  under: string;
  /** The name of a model of which the rest is shown in the solid view. */
  rest: string;
  /** Walls and openings of the project, by id: those that stay where they are, and those that go. */
  unmoved: string[];
  removed: string[];
  /** Walls and openings of the plan that are as the file has them, although it had them so and the project has not. */
  back_walls: number[];
  back_openings: number[];
  /** By how much the plan is turned when it is first taken over (degrees counter-clockwise). */
  turn: number;
}

const NONE: Choices = {
  unit: null,
  measured: null,
  says: "",
  layers: {},
  make_ups: {},
  without_walls: [],
  without_openings: [],
  without_stairs: [],
  pointed: [],
  marked: [],
  storeys: {},
  rooms: true,
  grids: true,
  roofs: true,
  under: "",
  rest: "",
  unmoved: [],
  removed: [],
  back_walls: [],
  back_openings: [],
  turn: 0,
};

const UNNUMBERED: Record<Numbered, number[]> = {
  without_walls: [],
  without_openings: [],
  without_stairs: [],
  back_walls: [],
  back_openings: [],
};

/** Under which what was chosen for a source is remembered: the names of its layers. */
const remembered = (look: Look) => `plan-layers:${look.layers.map((layer) => layer.name).join("|")}`;

export interface Reading {
  look: Look | undefined;
  error: Error | null;
  busy: boolean;
  /** What is being done while a file is read, and how much of all is done. */
  progress: Schemas["PlanProgress"] | undefined;
  choices: Choices;
  /** Changes what the file is read by: found walls are numbered anew, and none is left out. */
  readBy: (changes: Partial<Choices>) => void;
  /** Changes what is taken over of what was found. */
  take: (changes: Partial<Choices>) => void;
  toggle: (what: Numbered, place: number) => void;
  remember: () => void;
}

/** A file that is read, with choices; those made for a file of the same layers are made again. */
export function useReading(file: File): Reading {
  const { id, state } = useHeld();
  const [choices, setChoices] = useState<Choices>(NONE);
  const [recalled, setRecalled] = useState(false);
  const { unit, measured, says, layers, pointed, marked, unmoved, back_walls, back_openings } = choices;
  const [name] = useState(() => crypto.randomUUID?.() ?? `${Math.random()}`);
  const query = usePlanLook(
    id,
    state.version,
    file,
    { unit, measured, says, layers, pointed, marked, unmoved, back_walls, back_openings },
    name,
  );
  const progress = usePlanProgress(name, query.isFetching);
  // What was found last stays while a choice that cannot be is mended.
  const last = useRef<Look | undefined>(undefined);
  if (query.data) last.current = query.data;
  const look = last.current;
  if (look && !recalled) {
    setRecalled(true);
    const kept = window.localStorage.getItem(remembered(look));
    if (kept) setChoices({ ...choices, ...(JSON.parse(kept) as Partial<Choices>) });
  }
  const readBy = useCallback(
    (changes: Partial<Choices>) => setChoices((held) => ({ ...held, ...changes, ...UNNUMBERED })),
    [],
  );
  const take = useCallback((changes: Partial<Choices>) => setChoices((held) => ({ ...held, ...changes })), []);
  const toggle = useCallback<Reading["toggle"]>(
    (what, place) =>
      setChoices((held) => ({
        ...held,
        [what]: held[what].includes(place) ? held[what].filter((other) => other !== place) : [...held[what], place],
      })),
    [],
  );
  const remember = useCallback(() => {
    if (look) window.localStorage.setItem(remembered(look), JSON.stringify({ layers, make_ups: choices.make_ups }));
  }, [look, layers, choices.make_ups]);
  const busy = query.isFetching;
  return { look, error: query.error, busy, progress: progress.data, choices, readBy, take, toggle, remember };
}
