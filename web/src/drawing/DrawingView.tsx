import { memo } from "react";
import type { Drawing, Mark, Region, Stroke, TextMark } from "../api/client";
import { Backdrops } from "./Backdrops";
import { hatchTile, pathData } from "./path";
import { screenFill, screenPen } from "./pens";

interface Props {
  drawing: Drawing;
  /** Prefix of pattern ids, one per drawing on the page. */
  id: string;
  /** px per real mm, for the width of hatch lines. */
  k: number;
  /** Features that the screen shows in another way. */
  without?: readonly string[];
}

/** A drawing as SVG: a pure function of its marks. Lies in a group that scales and flips y. */
export const DrawingView = memo(function DrawingView({ drawing, id, k, without = [] }: Props) {
  return (
    <g className="drawing">
      <Patterns drawing={drawing} id={id} k={k} />
      <Marks drawing={drawing} id={id} without={without} />
      <Backdrops drawing={drawing} id={id} />
    </g>
  );
});

/** Hatch lines closer than this would run together on the screen: every second one is drawn, and no dashes. */
const SMALLEST_STEP_PX = 2.6;

const Patterns = memo(function Patterns({ drawing, id, k }: { drawing: Drawing; id: string; k: number }) {
  const pen = screenPen("hatch");
  return (
    <defs>
      {(drawing.hatches ?? []).flatMap((hatch, index) =>
        hatch.families.map((family, row) => {
          const tile = hatchTile(family, SMALLEST_STEP_PX / k);
          if (!tile) return null;
          const name = `${id}-${index}-${row}`;
          return (
            <pattern
              key={name}
              id={name}
              patternUnits="userSpaceOnUse"
              width={tile.width}
              height={tile.height}
              patternTransform={tile.transform}
            >
              <path d={tile.d} stroke={pen.colour} strokeWidth={pen.width / k} fill="none" />
            </pattern>
          );
        }),
      )}
    </defs>
  );
});

const Marks = memo(function Marks({
  drawing,
  id,
  without,
}: {
  drawing: Drawing;
  id: string;
  without: readonly string[];
}) {
  return (
    <>
      {drawing.marks.map((mark, index) =>
        "feature" in mark && mark.feature && without.includes(mark.feature) ? null : (
          // biome-ignore lint/suspicious/noArrayIndexKey: marks have no other name, and their order is their meaning
          <OneMark key={index} mark={mark} index={index} id={id} drawing={drawing} />
        ),
      )}
    </>
  );
});

function OneMark({ mark, index, id, drawing }: { mark: Mark; index: number; id: string; drawing: Drawing }) {
  if ("rings" in mark) return <RegionMark mark={mark} index={index} id={id} families={families(drawing, mark)} />;
  if ("path" in mark) return <StrokeMark mark={mark} index={index} />;
  if ("text" in mark && "size" in mark) return <TextLine mark={mark} index={index} scale={drawing.scale} />;
  return null;
}

function families(drawing: Drawing, mark: Region): number {
  return mark.hatch == null ? 0 : (drawing.hatches?.[mark.hatch]?.families.length ?? 0);
}

function RegionMark({ mark, index, id, families }: { mark: Region; index: number; id: string; families: number }) {
  const d = mark.rings.map((ring) => pathData(ring, true)).join("");
  const pen = mark.pen ? screenPen(mark.pen) : null;
  return (
    <>
      {(mark.fill || mark.part) && (
        <path
          d={d}
          fillRule="evenodd"
          fill={mark.fill ? screenFill(mark.fill) : "transparent"}
          stroke={pen?.colour}
          style={penWidth(pen?.width)}
          data-i={index}
          data-part={mark.part ?? undefined}
          data-feature={mark.feature ?? undefined}
        />
      )}
      {Array.from({ length: families }, (_, row) => (
        <path
          // biome-ignore lint/suspicious/noArrayIndexKey: families of a hatch are told apart by their place
          key={row}
          d={d}
          fillRule="evenodd"
          fill={`url(#${id}-${mark.hatch}-${row})`}
          pointerEvents="none"
        />
      ))}
      {families > 0 && pen && (
        <path d={d} fill="none" stroke={pen.colour} style={penWidth(pen.width)} pointerEvents="none" />
      )}
    </>
  );
}

/** Lines get thinner when a drawing is seen small, as they do on paper; of a view with thin pens all are alike. */
function penWidth(width: number | undefined) {
  return width === undefined ? undefined : { strokeWidth: `calc(min(${width}px, var(--thickest, 9px)) * var(--pen))` };
}

function StrokeMark({ mark, index }: { mark: Stroke; index: number }) {
  const pen = screenPen(mark.pen);
  const d = pathData(mark.path, mark.closed ?? false);
  const string = mark.pen === "dimension" && mark.annotation;
  // The window of a detail leads to it: its thin line takes a click from beside it.
  const wide = Boolean(mark.sum || mark.handle || string || mark.feature === "window");
  return (
    <>
      <path
        d={d}
        fill="none"
        stroke={pen.colour}
        style={penWidth(pen.width)}
        strokeDasharray={pen.dash}
        strokeLinecap="round"
        // A line that leads to words is not what lies under it.
        pointerEvents={mark.feature === "leader" && !mark.handle ? "none" : undefined}
        data-i={index}
        data-part={mark.part ?? undefined}
        data-feature={mark.feature ?? undefined}
      />
      {wide && (
        <path
          d={d}
          fill="none"
          stroke="transparent"
          strokeWidth={string ? 5 : 9}
          data-i={index}
          data-part={mark.part ?? undefined}
        />
      )}
    </>
  );
}

const ANCHORS = { left: "start", centre: "middle", right: "end" } as const;
const DROP = { bottom: "0", middle: "0.35em", top: "0.72em" } as const;
/** Capital height over font size, so that 2.5 mm lettering is 2.5 mm high. */
const CAP = 0.698;

function TextLine({ mark, index, scale }: { mark: TextMark; index: number; scale: number }) {
  const size = ((mark.size ?? 2.5) * scale) / CAP;
  return (
    <text
      transform={`translate(${mark.x} ${mark.y}) rotate(${mark.angle ?? 0}) scale(1 -1)`}
      data-i={mark.annotation || mark.handle ? index : undefined}
      data-key={mark.annotation ?? undefined}
      textAnchor={ANCHORS[mark.align ?? "left"]}
      dy={DROP[mark.valign ?? "bottom"]}
      fontFamily={mark.face === "mono" ? "var(--font-mono)" : "var(--font-sans)"}
      fontWeight={mark.face === "bold" ? 600 : 400}
      fill={
        mark.pen === "section" ? "var(--color-cut)" : mark.face === "mono" ? "var(--color-quiet)" : "var(--color-ink)"
      }
      stroke="var(--color-paper)"
      paintOrder="stroke"
      fontSize={size}
      style={{ strokeWidth: "calc(2.5px / var(--k))" }}
    >
      {mark.text}
    </text>
  );
}
