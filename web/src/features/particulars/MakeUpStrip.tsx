import type { Schemas } from "../../api/client";
import { useHeld } from "../../useProject";

type Strip = Schemas["Strip"];

const WIDTH = 262;
const HEIGHT = 62;
const FACES = ["outer", "middle", "inner"] as const;

interface Props {
  strip: Strip;
  element: string;
  /** On a wall: a click on a face puts the set-out line there. */
  pickable: boolean;
  /** On a make-up: the layer whose facts are shown, and how to choose another one. */
  chosen?: string | null;
  onChoose?: (layer: string) => void;
}

/** A make-up at true scale, outside (or top) at the left. */
export function MakeUpStrip({ strip, element, pickable, chosen, onChoose }: Props) {
  const { change } = useHeld();
  let reached = 0;
  const places = strip.layers.map((layer) => {
    const x = reached * WIDTH;
    reached += layer.share;
    return { layer, x, width: layer.share * WIDTH };
  });
  const pick = (layer: string, face: string) =>
    change({ kind: "entry", element, field: "set_out", text: `${layer}:${face}` });
  return (
    <div>
      <svg width={WIDTH} height={HEIGHT + 6} role="img" aria-label={`${strip.name}, ${strip.total}`}>
        {places.map(({ layer, x, width }) => (
          <g key={layer.id}>
            {/* biome-ignore lint/a11y/noStaticElementInteractions: the list below does the same by keyboard */}
            <rect
              x={x}
              y={3}
              width={Math.max(width, 0.8)}
              height={HEIGHT}
              fill={layer.tone}
              stroke={layer.id === chosen ? "var(--color-line)" : "var(--color-ink)"}
              strokeWidth={layer.id === chosen ? 2.2 : 0.7}
              onClick={onChoose && (() => onChoose(layer.id))}
              style={onChoose && { cursor: "pointer" }}
            />
            <Filling hatch={layer.hatch ?? null} x={x} width={width} />
          </g>
        ))}
        {strip.face != null && (
          <line
            x1={strip.face * WIDTH}
            x2={strip.face * WIDTH}
            y1={0}
            y2={HEIGHT + 6}
            stroke="var(--color-line)"
            strokeWidth={2.5}
          />
        )}
      </svg>
      {strip.face_label && <p className="text-[11px] text-line">set-out face: {strip.face_label}</p>}
      <ol className="mt-2">
        {strip.layers.map((layer) => (
          <li key={layer.id} className="flex items-center justify-between gap-2 py-px text-[11.5px]">
            {onChoose ? (
              <button
                type="button"
                aria-pressed={layer.id === chosen}
                onClick={() => onChoose(layer.id)}
                className={`truncate rounded px-1 text-left hover:text-line ${layer.id === chosen ? "bg-line-soft font-semibold" : ""}`}
              >
                {layer.name}
              </button>
            ) : (
              <span className="truncate">{layer.name}</span>
            )}
            <span className="flex items-center gap-1">
              {pickable &&
                layer.share > 0.02 &&
                FACES.map((face) => (
                  <button
                    key={face}
                    type="button"
                    title={`Set out on the ${face === "outer" ? "outside" : face === "inner" ? "inside" : "middle"} of ${layer.name}`}
                    aria-label={`Set out on the ${face === "outer" ? "outside" : face === "inner" ? "inside" : "middle"} of ${layer.name}`}
                    onClick={() => pick(layer.id, face)}
                    className="h-4 w-4 rounded-sm border border-rule bg-field text-[9px] leading-none text-quiet hover:border-line hover:text-line"
                  >
                    {face === "outer" ? "[" : face === "middle" ? "|" : "]"}
                  </button>
                ))}
              <span className="w-[62px] text-right font-mono text-[11px] text-quiet">{layer.thickness}</span>
            </span>
          </li>
        ))}
      </ol>
    </div>
  );
}

/** A hint of the cut hatch, drawn for the strip: loops for quilt, slopes for boards, dots for concrete and gypsum. */
function Filling({ hatch, x, width }: { hatch: string | null; x: number; width: number }) {
  if (width < 5) return null;
  if (hatch === "quilt") {
    const loops = Math.max(2, Math.round(HEIGHT / 14));
    const step = HEIGHT / loops;
    let d = `M${x + 3} 3`;
    for (let i = 0; i < loops; i++) {
      const y = 3 + i * step;
      d += `C${x + width * 1.1} ${y},${x + width * 1.1} ${y + step / 2},${x + width / 2} ${y + step / 2}S${x + 3} ${y + step / 2},${x + 3} ${y + step}`;
    }
    return <path d={d} fill="none" stroke="#9b7a35" strokeWidth={0.9} />;
  }
  if (hatch === "gypsum" || hatch === "concrete" || hatch === "gravel") {
    const dots = Array.from({ length: Math.round((width * HEIGHT) / 55) }, (_, i) => [
      x + 2 + ((i * 37) % Math.max(width - 4, 1)),
      6 + ((i * 23) % (HEIGHT - 6)),
    ]);
    return (
      <g fill="#77777a">
        {dots.map(([cx, cy]) => (
          <circle key={`${cx},${cy}`} cx={cx} cy={cy} r={0.8} />
        ))}
      </g>
    );
  }
  if (!hatch) return null;
  const lines = Array.from({ length: Math.ceil((HEIGHT + width) / 5) }, (_, i) => i * 5);
  return (
    <g stroke="#77777a" strokeWidth={0.6}>
      {lines.map((at) => {
        const y0 = Math.min(at, HEIGHT);
        const x0 = at - y0;
        const x1 = Math.min(at, width);
        return x0 <= x1 ? <line key={at} x1={x + x0} y1={3 + y0} x2={x + x1} y2={3 + at - x1} /> : null;
      })}
    </g>
  );
}
