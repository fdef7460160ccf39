import type { Bench } from "../../api/client";
import type { Viewport } from "../../store";
import { useBench } from "./useBench";

type Triangle = Bench["triangles"][number];

/** What a height along a slope comes from: its run on the plan; run, rise and slope in the view below. */
export function Triangles({ sum }: { sum: string }) {
  const { bench, viewport, panes } = useBench();
  const held = bench.triangles.filter((triangle) => triangle.sums.includes(sum));
  return (
    <g
      pointerEvents="none"
      stroke="var(--color-line)"
      fill="none"
      strokeWidth={1.5}
      fontSize={11.5}
      fontFamily="var(--font-mono)"
      data-testid="triangles"
    >
      {held.map((triangle) => (
        <g key={`${triangle.u0},${triangle.w0},${triangle.u1},${triangle.w1}`}>
          {panes.planBottom > 40 && <OnPlan triangle={triangle} viewport={viewport} />}
          {panes.viewBottom - panes.viewTop > 40 && <InView triangle={triangle} viewport={viewport} />}
        </g>
      ))}
    </g>
  );
}

function OnPlan({ triangle, viewport }: { triangle: Triangle; viewport: Viewport }) {
  const [x0, x1] = [triangle.u0, triangle.u1].map((u) => viewport.u + u * viewport.k);
  const [y0, y1] = [triangle.w0, triangle.w1].map((w) => viewport.w - w * viewport.k);
  return (
    <g clipPath="url(#clip-plan)">
      <line x1={x0} y1={y0} x2={x1} y2={y1} />
      <circle cx={x0} cy={y0} r={3} fill="var(--color-paper)" />
      <circle cx={x1} cy={y1} r={3} fill="var(--color-line)" />
      <Label x={(x0 + x1) / 2 + 8} y={(y0 + y1) / 2 - 6} text={triangle.run} />
    </g>
  );
}

/** Seen along its run it is one upright line: only its rise is told. */
function InView({ triangle, viewport }: { triangle: Triangle; viewport: Viewport }) {
  const [x0, x1] = [triangle.u0, triangle.u1].map((u) => viewport.u + u * viewport.k);
  const [y0, y1] = [triangle.v0, triangle.v1].map((v) => viewport.v - v * viewport.k);
  const flat = Math.abs(x1 - x0) < 8;
  const right = x1 >= x0;
  return (
    <g clipPath="url(#clip-view)">
      <path d={`M${x0} ${y0}H${x1}V${y1}${flat ? "" : "Z"}`} strokeDasharray="5 3" />
      {!flat && <Label x={(x0 + x1) / 2} y={y0 + (y1 < y0 ? 14 : -5)} anchor="middle" text={triangle.run} />}
      <Label x={x1 + (right ? 6 : -6)} y={(y0 + y1) / 2} anchor={right ? "start" : "end"} text={triangle.rise} />
      {!flat && (
        <Label
          x={(x0 + x1) / 2 + (right ? -6 : 6)}
          y={(y0 + y1) / 2 - 4}
          anchor={right ? "end" : "start"}
          text={triangle.slope}
        />
      )}
    </g>
  );
}

function Label({
  x,
  y,
  text,
  anchor = "start",
}: {
  x: number;
  y: number;
  text: string;
  anchor?: "start" | "middle" | "end";
}) {
  return (
    <text
      x={x}
      y={y}
      textAnchor={anchor}
      fill="var(--color-line)"
      stroke="var(--color-paper)"
      strokeWidth={3}
      paintOrder="stroke"
    >
      {text}
    </text>
  );
}
