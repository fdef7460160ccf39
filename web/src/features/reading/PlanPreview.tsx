import { memo, useMemo } from "react";
import { lengthText } from "../../actions/lengthText";
import { snapped } from "../../drawing/frame";
import { pathData } from "../../drawing/path";
import { usePane } from "../../drawing/usePane";
import { useHeld } from "../../useProject";
import { fillOf, inkOf } from "./colours";
import type { Look, Reading } from "./useReading";

export type Shown = "drawing" | "found" | "left";
type Point = readonly [number, number];

interface Props {
  reading: Reading;
  look: Look;
  shown: Record<Shown, boolean>;
  /** Points are being picked: for the scale, or for what was not found. */
  picking: boolean;
  picked: readonly Point[];
  /** The point itself, and the end of a line that is near to it. */
  onPick: (point: Point, end: Point) => void;
  onPoint: (words: string | null) => void;
}

/** The drawing as it came, and what was found in it: a click on a wall or an opening takes it out, or back in. */
export function PlanPreview({ reading, look, shown, picking, picked, onPick, onPoint }: Props) {
  const ends = useMemo(
    () =>
      look.drawn.flatMap(([x0, y0, x1, y1]): Point[] => [
        [x0, y0],
        [x1, y1],
      ]),
    [look],
  );
  const all = useMemo(() => (look.walls.length ? look.walls.flatMap((wall) => wall.outline) : ends), [look, ends]);
  const { pane, transform, toPane } = usePane(all, (place, reach, target) => {
    if (picking) {
      onPick(place, snapped(ends, place, reach));
      return;
    }
    const [what, found] = target.closest("[data-found]")?.getAttribute("data-found")?.split(":") ?? [];
    if (what === "wall") reading.toggle("without_walls", Number(found));
    if (what === "opening") reading.toggle("without_openings", Number(found));
    if (what === "stair") reading.toggle("without_stairs", Number(found));
  });

  return (
    <svg
      ref={pane}
      role="img"
      aria-label="Plan in the file"
      className={`h-full w-full touch-none bg-paper ${picking ? "cursor-crosshair" : "cursor-default"}`}
      onPointerLeave={() => onPoint(null)}
    >
      <g transform={transform}>
        {shown.drawing && <Drawn look={look} left={false} />}
        {shown.left && <Drawn look={look} left />}
        {shown.found && <Found reading={reading} look={look} onPoint={onPoint} />}
      </g>
      {shown.found &&
        look.rooms.map((room) => (
          <text
            key={`${room.name} ${room.at}`}
            x={toPane(room.at)[0]}
            y={toPane(room.at)[1]}
            textAnchor="middle"
            className="pointer-events-none fill-ink text-[12px]"
          >
            {room.name}
          </text>
        ))}
      {shown.found && look.north && <North angle={look.north.angle} at={toPane(look.north.at)} />}
      {picked.map(toPane).map(([x, y], k) => (
        <circle
          // biome-ignore lint/suspicious/noArrayIndexKey: two points, told apart by their order
          key={k}
          cx={x}
          cy={y}
          r={5}
          className="fill-none stroke-cut"
          strokeWidth={2}
        />
      ))}
    </svg>
  );
}

/** Where north was read to be. */
function North({ angle, at: [x, y] }: { angle: number; at: Point }) {
  return (
    <path
      d="M0 26V-26M-7 -12L0 -26L7 -12"
      transform={`translate(${x} ${y}) rotate(${angle})`}
      fill="none"
      className="pointer-events-none stroke-line"
      strokeWidth={2}
      data-testid="north"
    />
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
const ROOF = "#8a5a2b";
const STAIR = "#7a6a9c";
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
  const { without_walls, without_openings, without_stairs } = reading.choices;
  const { units } = useHeld().state.project;
  const sure = (confidence: number) => `${Math.round(confidence * 100)} % sure`;
  return (
    <g>
      {reading.choices.roofs &&
        look.roofs.map((roof) => (
          <path
            key={roof.outline.join()}
            d={pathData(
              roof.outline.map(([x, y]) => [x, y, 0]),
              true,
            )}
            fill="none"
            stroke={ROOF}
            strokeWidth={1.4}
            strokeDasharray="10 4"
            vectorEffect="non-scaling-stroke"
            className="pointer-events-none"
            data-testid="roof"
          />
        ))}
      {look.stairs.map((stair, place) => {
        const out = without_stairs.includes(place);
        return (
          <path
            // biome-ignore lint/suspicious/noArrayIndexKey: what was found is named by its place
            key={place}
            data-found={`stair:${place}`}
            data-out={out}
            d={stair.outlines
              .map((outline) =>
                pathData(
                  outline.map(([x, y]) => [x, y, 0]),
                  true,
                ),
              )
              .join("")}
            fill={STAIR}
            fillOpacity={out ? 0.04 : 0.4}
            stroke={STAIR}
            strokeWidth={1.2}
            strokeDasharray={out || !stair.built ? "5 4" : undefined}
            vectorEffect="non-scaling-stroke"
            onPointerEnter={() =>
              onPoint(
                `Stair, ${stair.risers} risers, ${lengthText(stair.width, units)} wide, treads ${lengthText(stair.going, units)}: ${sure(stair.confidence)}, ${stair.reason}`,
              )
            }
          />
        );
      })}
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
      {[...look.gone, ...look.moved].map((held) => (
        <path
          key={held.id}
          d={pathData(
            held.line.map(([x, y]) => [x, y, 0]),
            false,
          )}
          fill="none"
          stroke={look.gone.includes(held) ? GONE : STANDS}
          strokeWidth={held.kind === "wall" ? 2.5 : 5}
          strokeOpacity={held.kind === "wall" ? 1 : 0.55}
          strokeDasharray="9 5"
          vectorEffect="non-scaling-stroke"
          data-testid={look.gone.includes(held) ? "gone" : "moved"}
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
