import type { ReactNode } from "react";
import { useClient, type WallShape } from "../../store";
import { useHeld } from "../shell/useProject";

/** What the chosen tool asks beforehand, at the top of the plan. */
export function ToolOptions({ top }: { top: number }) {
  const { tool } = useClient();
  const status = tool === "outer-wall" ? "outer" : tool === "inner-wall" ? "inner" : null;
  const unit = tool === "window" || tool === "door" || tool === "niche" ? tool : null;
  if (!status && !unit) return null;
  return (
    <div
      role="toolbar"
      aria-label="Options of the tool"
      className="absolute left-3 z-10 flex items-center gap-3 rounded-md border border-rule bg-ground/95 px-2.5 py-1.5"
      style={{ top: top + 8 }}
    >
      {status && <WallOptions status={status} />}
      {unit && <KindOption unit={unit} />}
    </div>
  );
}

function WallOptions({ status }: { status: "outer" | "inner" }) {
  const { state } = useHeld();
  const { makeUps, shape, set } = useClient();
  const walls = (state.project.make_ups ?? []).filter((held) => held.use === "wall");
  return (
    <>
      <Choice
        label="Draw"
        name="How walls are drawn"
        value={shape}
        onChange={(value) => set({ shape: value as WallShape })}
      >
        <option value="chain">corner by corner</option>
        <option value="rectangle">a rectangle</option>
      </Choice>
      <Choice
        label="of"
        name="Make-up of new walls"
        value={makeUps[status] ?? walls.at(status === "outer" ? 0 : -1)?.id}
        onChange={(value) => set({ makeUps: { ...makeUps, [status]: value } })}
      >
        {walls.map((held) => (
          <option key={held.id} value={held.id}>
            {held.name}
          </option>
        ))}
      </Choice>
    </>
  );
}

function KindOption({ unit }: { unit: "window" | "door" | "niche" }) {
  const { state } = useHeld();
  const { kinds, set } = useClient();
  const fitting = (state.project.kinds ?? []).filter((kind) => kind.unit === unit);
  return (
    <Choice
      label="Kind"
      name={`Kind of new ${unit}s`}
      value={kinds[unit] ?? fitting[0]?.id ?? ""}
      onChange={(value) => set({ kinds: { ...kinds, [unit]: value } })}
    >
      {fitting.map((kind) => (
        <option key={kind.id} value={kind.id}>
          {kind.number} {kind.name}
        </option>
      ))}
      <option value="">of its own</option>
    </Choice>
  );
}

interface ChoiceProps {
  label: string;
  name: string;
  value: string | undefined;
  onChange: (value: string) => void;
  children: ReactNode;
}

function Choice({ label, name, value, onChange, children }: ChoiceProps) {
  return (
    <label className="flex items-center gap-1.5 text-[12px] text-quiet">
      {label}
      <select
        aria-label={name}
        value={value}
        onChange={(event) => onChange(event.target.value)}
        className="h-7 rounded-md border border-rule bg-field px-1.5 text-[12px] text-ink"
      >
        {children}
      </select>
    </label>
  );
}
