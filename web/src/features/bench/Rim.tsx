import type { Side } from "../../store";
import type { Panes } from "./viewport";

/** Which side of the house lies at which rim of the pane, when a side faces down. */
const AROUND: Record<Side, [Side, Side, Side, Side]> = {
  south: ["south", "east", "north", "west"],
  east: ["east", "north", "west", "south"],
  north: ["north", "west", "south", "east"],
  west: ["west", "south", "east", "north"],
};

interface Props {
  facing: Side | null;
  panes: Panes;
  onTurn: (side: Side) => void;
}

/** The four sides named on the rim of the plan; a click on one turns the plan so that it faces down. */
export function Rim({ facing, panes, onTurn }: Props) {
  if (panes.planBottom < 80) return null;
  const [down, right, up, left] = AROUND[facing ?? "south"];
  const middle = (panes.planTop + panes.planBottom) / 2 - 44;
  const places: [Side, React.CSSProperties, boolean][] = [
    [up, { left: panes.width - 118, top: panes.planTop + 8 }, false],
    [down, { left: panes.width - 118, top: panes.planBottom - 32 }, false],
    [left, { left: 10, top: middle }, true],
    [right, { left: panes.width - 34, top: middle }, true],
  ];
  return (
    <>
      {places.map(([side, style, upright]) => {
        const chosen = side === facing;
        return (
          <button
            key={side}
            type="button"
            aria-pressed={chosen}
            onClick={() => onTurn(side)}
            style={{
              ...style,
              writingMode: upright ? "vertical-rl" : undefined,
              transform: upright ? "rotate(180deg)" : undefined,
            }}
            className={`absolute rounded-full border text-[11px] ${upright ? "h-[88px] w-6" : "h-6 w-[108px]"} ${
              chosen
                ? "border-line bg-line font-semibold text-paper"
                : "border-rule bg-ground text-quiet hover:border-line hover:text-line"
            }`}
          >
            {side} side
          </button>
        );
      })}
    </>
  );
}
