import { memo, useMemo } from "react";
import type { Drawing } from "../api/client";
import { usePage } from "../api/queries";
import { pathData } from "./path";

type Backdrop = NonNullable<Drawing["backdrops"]>[number];

/** Height of capitals over font size. */
const CAP = 0.698;
/** Somebody else's lines are told from those of the house. */
const INK = "#8a4b12";

/** Pages of files that lie under a drawing: their ink darkens it, and a click goes through them. */
export const Backdrops = memo(function Backdrops({ drawing, id }: { drawing: Drawing; id: string }) {
  return (
    <>
      {(drawing.backdrops ?? []).map((held) => (
        <OneBackdrop key={held.id} held={held} id={`${id}-under-${held.id}`} />
      ))}
    </>
  );
});

function OneBackdrop({ held, id }: { held: Backdrop; id: string }) {
  const { data, isError } = usePage(held.file, held.page);
  const [x0, y0, x1, y1] = held.box;
  const lines = useMemo(() => data?.lines.map((line) => pathData(line, false)).join("") ?? "", [data]);
  const areas = useMemo(
    () => data?.areas.flatMap((rings) => rings.map((ring) => pathData(ring, true))).join("") ?? "",
    [data],
  );
  const box = `M${x0} ${y0}H${x1}V${y1}H${x0}Z`;
  return (
    <g transform={`matrix(${held.place.join(" ")})`} pointerEvents="none" data-backdrop={held.id}>
      <clipPath id={id}>
        <path d={box} />
      </clipPath>
      <g clipPath={`url(#${id})`} opacity={held.strength}>
        {data?.image && (
          <image
            href={`/api/files/${held.file}/pages/${held.page}/image`}
            width={data.width}
            height={data.height}
            y={-data.height}
            transform="scale(1 -1)"
            preserveAspectRatio="none"
          />
        )}
        {data?.image && (
          // Thin lines of an image that is seen small would fade away.
          <path d={lines} fill="none" stroke={INK} strokeWidth={0.6} vectorEffect="non-scaling-stroke" />
        )}
        {data && !data.image && (
          <>
            <path d={areas} fill="#d2d2ce" fillRule="evenodd" />
            <path d={lines} fill="none" stroke={INK} strokeWidth={0.9} vectorEffect="non-scaling-stroke" />
            {data.words.map((word, place) => (
              <text
                // biome-ignore lint/suspicious/noArrayIndexKey: words have no other name
                key={place}
                transform={`translate(${word.x} ${word.y}) rotate(${word.angle}) scale(1 -1)`}
                textAnchor="middle"
                dy="0.35em"
                fontSize={word.height / CAP}
                fontFamily="var(--font-sans)"
                fill={INK}
              >
                {word.text}
              </text>
            ))}
          </>
        )}
      </g>
      {isError && (
        <path
          d={`${box}M${x0} ${y0}L${x1} ${y1}M${x0} ${y1}L${x1} ${y0}`}
          fill="none"
          stroke="var(--color-cut)"
          strokeWidth={1.4}
          strokeDasharray="6 4"
          vectorEffect="non-scaling-stroke"
          data-testid="backdrop-lost"
        />
      )}
    </g>
  );
}
