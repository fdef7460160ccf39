import { memo, type PointerEvent, useEffect, useMemo, useRef, useState } from "react";
import { lengthText } from "../../actions/lengthText";
import { pathData } from "../../drawing/path";
import { useHeld } from "../../useProject";
import { fillOf, inkOf } from "./colours";
import { around, type Frame, placeOf, type Size, snapped, zoomed } from "./frame";
import type { Look, Reading } from "./useReading";

export type Shown = "drawing" | "found" | "left";
type Point = readonly [number, number];

interface Props {
  reading: Reading;
  look: Look;
  shown: Record<Shown, boolean>;
  /** Two points are being picked for the scale. */
  picking: boolean;
  picked: readonly Point[];
  onPick: (point: Point) => void;
  onPoint: (words: string | null) => void;
}

/** The drawing as it came, and what was found in it: a click on a wall or an opening takes it out, or back in. */
export function PlanPreview({ reading, look, shown, picking, picked, onPick, onPoint }: Props) {
  const pane = useRef<SVGSVGElement>(null);
  const [size, setSize] = useState<Size>({ width: 800, height: 600 });
  const [frame, setFrame] = useState<Frame | null>(null);
  const drag = useRef<{ x: number; y: number; frame: Frame; moved: boolean } | null>(null);

  useEffect(() => {
    const held = pane.current;
    if (!held) return;
    const watch = new ResizeObserver(() => setSize({ width: held.clientWidth, height: held.clientHeight }));
    watch.observe(held);
    return () => watch.disconnect();
  }, []);

  const ends = useMemo(
    () =>
      look.drawn.flatMap(([x0, y0, x1, y1]): Point[] => [
        [x0, y0],
        [x1, y1],
      ]),
    [look],
  );
  const fitted = useMemo(
    () => around(look.walls.length ? look.walls.flatMap((wall) => wall.outline) : ends, size),
    [look, ends, size],
  );
  const at = frame ?? fitted;

  // React listens to wheels passively; the page must not scroll with the drawing.
  useEffect(() => {
    const held = pane.current;
    if (!held) return;
    const turn = (event: WheelEvent) => {
      event.preventDefault();
      const box = held.getBoundingClientRect();
      const by = Math.exp(-event.deltaY * 0.0015);
      setFrame((now) => zoomed(now ?? fitted, size, event.clientX - box.left, event.clientY - box.top, by));
    };
    held.addEventListener("wheel", turn, { passive: false });
    return () => held.removeEventListener("wheel", turn);
  }, [fitted, size]);

  function down(event: PointerEvent<SVGSVGElement>) {
    drag.current = { x: event.clientX, y: event.clientY, frame: at, moved: false };
  }
  function move(event: PointerEvent<SVGSVGElement>) {
    const from = drag.current;
    if (!from) return;
    const [dx, dy] = [event.clientX - from.x, event.clientY - from.y];
    if (!from.moved && Math.hypot(dx, dy) < 4) return;
    from.moved = true;
    setFrame({ ...from.frame, x: from.frame.x - dx / from.frame.k, y: from.frame.y + dy / from.frame.k });
  }
  function up(event: PointerEvent<SVGSVGElement>) {
    const from = drag.current;
    drag.current = null;
    if (!from || from.moved) return;
    const box = event.currentTarget.getBoundingClientRect();
    if (picking) {
      const place = placeOf(at, size, event.clientX - box.left, event.clientY - box.top);
      onPick(snapped(ends, place, 12 / at.k));
      return;
    }
    const mark = (event.target as Element).closest("[data-found]");
    const [what, place] = mark?.getAttribute("data-found")?.split(":") ?? [];
    if (what === "wall") reading.toggle("without_walls", Number(place));
    if (what === "opening") reading.toggle("without_openings", Number(place));
  }

  return (
    <svg
      ref={pane}
      role="img"
      aria-label="Plan in the file"
      className={`h-full w-full touch-none bg-paper ${picking ? "cursor-crosshair" : "cursor-default"}`}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerLeave={() => onPoint(null)}
    >
      <g
        transform={`translate(${size.width / 2 - at.x * at.k} ${size.height / 2 + at.y * at.k}) scale(${at.k} ${-at.k})`}
      >
        {shown.drawing && <Drawn look={look} left={false} />}
        {shown.left && <Drawn look={look} left />}
        {shown.found && <Found reading={reading} look={look} onPoint={onPoint} />}
      </g>
      {shown.found &&
        look.rooms.map((room) => (
          <text
            key={`${room.name} ${room.at}`}
            x={(room.at[0] - at.x) * at.k + size.width / 2}
            y={size.height / 2 - (room.at[1] - at.y) * at.k}
            textAnchor="middle"
            className="pointer-events-none fill-ink text-[12px]"
          >
            {room.name}
          </text>
        ))}
      {picked.map(([x, y], k) => (
        <circle
          // biome-ignore lint/suspicious/noArrayIndexKey: two points, told apart by their order
          key={k}
          cx={(x - at.x) * at.k + size.width / 2}
          cy={size.height / 2 - (y - at.y) * at.k}
          r={5}
          className="fill-none stroke-cut"
          strokeWidth={2}
        />
      ))}
    </svg>
  );
}

/** The lines of the drawing, a path for each layer; what is left over stands out. */
const Drawn = memo(function Drawn({ look, left }: { look: Look; left: boolean }) {
  const paths = new Map<number, string[]>();
  for (const [x0, y0, x1, y1, bulge, layer, over] of look.drawn) {
    if (left && !over) continue;
    const held = paths.get(layer) ?? [];
    held.push(
      pathData(
        [
          [x0, y0, bulge],
          [x1, y1, 0],
        ],
        false,
      ),
    );
    paths.set(layer, held);
  }
  return (
    <g className="pointer-events-none" data-testid={left ? "left-over" : "drawn"}>
      {[...paths].map(([layer, d]) => (
        <path
          key={layer}
          d={d.join("")}
          fill="none"
          stroke={left ? "#b4520a" : inkOf(layer)}
          strokeWidth={left ? 1.8 : 0.9}
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </g>
  );
});

/** Walls of the project: those that the file has too, and those that it has not. */
const STANDS = "#8d8778";
const GONE = "#a8402f";
const OPENINGS = { window: "#cfe3ea", door: "#f6efe0", opening: "#ffffff" } as const;

const Found = memo(function Found({
  reading,
  look,
  onPoint,
}: {
  reading: Reading;
  look: Look;
  onPoint: (words: string | null) => void;
}) {
  const { without_walls, without_openings } = reading.choices;
  const { units } = useHeld().state.project;
  const sure = (confidence: number) => `${Math.round(confidence * 100)} % sure`;
  return (
    <g>
      {look.walls.map((wall, place) => {
        const out = without_walls.includes(place);
        const colour = wall.stands ? STANDS : fillOf(look.groups, wall.group);
        const thick = wall.thickness ? lengthText(wall.thickness, units) : "no thickness drawn";
        return (
          <path
            // biome-ignore lint/suspicious/noArrayIndexKey: what was found is named by its place
            key={place}
            data-found={`wall:${place}`}
            data-out={out}
            d={pathData(
              wall.outline.map(([x, y]) => [x, y, 0]),
              true,
            )}
            fill={colour}
            fillOpacity={out ? 0.04 : 0.55}
            stroke={colour}
            strokeWidth={1.2}
            strokeDasharray={out || wall.confidence < 0.6 ? "5 4" : undefined}
            vectorEffect="non-scaling-stroke"
            onPointerEnter={() =>
              onPoint(
                `${wall.stands ? "Stands already: wall" : "Wall"}, ${thick}, ${lengthText(wall.length, units)} long: ${sure(wall.confidence)}, ${wall.reason}`,
              )
            }
          />
        );
      })}
      {look.gone.map((line) => (
        <path
          key={line.join()}
          d={pathData(
            line.map(([x, y]) => [x, y, 0]),
            false,
          )}
          fill="none"
          stroke={GONE}
          strokeWidth={2.5}
          strokeDasharray="9 5"
          vectorEffect="non-scaling-stroke"
          data-testid="gone"
        />
      ))}
      {look.openings.map((opening, place) => {
        const out = without_openings.includes(place) || without_walls.includes(opening.wall);
        return (
          <path
            // biome-ignore lint/suspicious/noArrayIndexKey: what was found is named by its place
            key={place}
            data-found={`opening:${place}`}
            data-out={out}
            d={pathData(
              opening.outline.map(([x, y]) => [x, y, 0]),
              true,
            )}
            fill={out ? "transparent" : OPENINGS[opening.kind]}
            stroke={out || opening.stands ? STANDS : "#23272b"}
            strokeWidth={1.2}
            strokeDasharray={out || opening.confidence < 0.6 ? "4 3" : undefined}
            vectorEffect="non-scaling-stroke"
            onPointerEnter={() =>
              onPoint(
                `${opening.kind}${opening.number && ` ${opening.number}`}, ${lengthText(opening.width, units)} wide: ${sure(opening.confidence)}, ${opening.reason}`,
              )
            }
          />
        );
      })}
    </g>
  );
});
