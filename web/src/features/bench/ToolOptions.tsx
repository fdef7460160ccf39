import { type ReactNode, useState } from "react";
import type { BayShape } from "../../actions/bay";
import type { AreaShape } from "../../actions/corners";
import { movables } from "../../actions/elements";
import { lengthText } from "../../actions/lengthText";
import type { OnRoof, RoofForm } from "../../actions/roof";
import { STAIR_FORMS, type StairForm } from "../../actions/stair";
import { readLength } from "../../api/queries";
import { type RoofBase, usePick, type WallShape } from "../../store";
import { ANY_OUTLINE, bayOf, motionsFor } from "../../tools";
import { Button } from "../../ui/Button";
import { Select } from "../../ui/Select";
import { useHeld } from "../../useProject";

/** What the chosen tool asks beforehand, at the top of the plan. */
export function ToolOptions({ top }: { top: number }) {
  const { tool, selection, also, step } = usePick("tool", "selection", "also", "step");
  const { state } = useHeld();
  const moved = movables(state, [selection, ...also]);
  const motions = tool === "select" && step === "Plan" && moved.length > 0;
  const status = tool === "outer-wall" ? "outer" : tool === "inner-wall" ? "inner" : null;
  const unit = tool === "window" || tool === "door" || tool === "niche" ? tool : null;
  const options =
    tool === "roof" ||
    tool === "stair" ||
    tool === "on-roof" ||
    tool === "bay" ||
    tool === "copy" ||
    tool === "mirror" ||
    tool === "turn" ||
    ANY_OUTLINE.includes(tool);
  if (!status && !unit && !options && !motions) return null;
  return (
    <div
      role="toolbar"
      aria-label="Options of the tool"
      className="absolute left-3 z-10 flex items-center gap-3 rounded-md border border-rule bg-ground/95 px-2.5 py-1.5"
      style={{ top: top + 8 }}
    >
      {status && <WallOptions status={status} />}
      {unit && <KindOption unit={unit} />}
      {tool === "bay" && <BayOptions />}
      {tool === "roof" && <RoofOptions />}
      {tool === "on-roof" && <OnRoofOptions />}
      {tool === "stair" && <StairOptions />}
      {ANY_OUTLINE.includes(tool) && <AreaOption />}
      {tool === "copy" && <CopyOptions />}
      {(tool === "mirror" || tool === "turn") && <KeepOption />}
      {motions && <MotionButtons items={motionsFor(state.project, moved)} />}
    </div>
  );
}

/** What can be done with what is selected. */
function MotionButtons({ items }: { items: ReturnType<typeof motionsFor> }) {
  const { set } = usePick("set");
  return (
    <>
      {items.map((item) => (
        <Button
          key={item.tool}
          title={item.words}
          className="!px-2"
          onClick={() => set({ tool: item.tool, message: null, copies: 1, keep: false })}
        >
          {item.label}
        </Button>
      ))}
    </>
  );
}

function CopyOptions() {
  const { copies, set } = usePick("copies", "set");
  return (
    <label className="flex items-center gap-1.5 text-[12px] text-quiet">
      Copies
      <input
        type="number"
        min={1}
        max={50}
        aria-label="How many copies"
        value={copies}
        onChange={(event) => set({ copies: Math.max(1, Math.min(50, Number(event.target.value) || 1)) })}
        onKeyDown={(event) => event.stopPropagation()}
        className="h-7 w-[58px] rounded-md border border-rule bg-field px-1.5 text-right font-mono text-[12px] text-ink"
      />
      each as far from the last
    </label>
  );
}

function AreaOption() {
  const { outline, set } = usePick("outline", "set");
  return (
    <Choice
      label="Draw"
      name="How the area is drawn"
      value={outline}
      onChange={(value) => set({ outline: value as AreaShape })}
    >
      <option value="rectangle">a rectangle</option>
      <option value="corners">corner by corner</option>
    </Choice>
  );
}

function KeepOption() {
  const { keep, set } = usePick("keep", "set");
  return (
    <Choice
      label="The original"
      name="The original"
      value={keep ? "keep" : "move"}
      onChange={(value) => set({ keep: value === "keep" })}
    >
      <option value="move">goes along</option>
      <option value="keep">stays where it is</option>
    </Choice>
  );
}

function WallOptions({ status }: { status: "outer" | "inner" }) {
  const { state } = useHeld();
  const { makeUps, shape, set } = usePick("makeUps", "shape", "set");
  const walls = (state.project.make_ups ?? []).filter((held) => held.use === "wall");
  const saved = (state.project.saved_walls ?? []).filter((held) => held.status === status);
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
        <option value="outline">by its outline</option>
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
        {shape !== "outline" &&
          saved.map((held) => (
            <option key={held.id} value={held.id}>
              {`saved: ${held.name}`}
            </option>
          ))}
      </Choice>
    </>
  );
}

function KindOption({ unit }: { unit: "window" | "door" | "niche" }) {
  const { state } = useHeld();
  const { kinds, set } = usePick("kinds", "set");
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

function OnRoofOptions() {
  const { onRoof, set } = usePick("onRoof", "set");
  return (
    <Choice
      label="On the roof"
      name="What is put on the roof"
      value={onRoof}
      onChange={(what) => set({ onRoof: what as OnRoof })}
    >
      <option value="chimney">chimney</option>
      <option value="window">roof window</option>
      <option value="pipe">pipe</option>
      <option value="vent">vent</option>
      <option value="downpipe">downpipe</option>
    </Choice>
  );
}

function StairOptions() {
  const { stair, set } = usePick("stair", "set");
  return (
    <Choice
      label="Stair"
      name="How the stair goes up"
      value={stair}
      onChange={(form) => set({ stair: form as StairForm })}
    >
      {STAIR_FORMS.map(([form, words]) => (
        <option key={form} value={form}>
          {words}
        </option>
      ))}
    </Choice>
  );
}

function RoofOptions() {
  const { roof, set } = usePick("roof", "set");
  return (
    <>
      <Choice
        label="Roof"
        name="Form of the roof"
        value={roof.form}
        onChange={(form) => set({ roof: { ...roof, form: form as RoofForm } })}
      >
        <option value="hip">hip</option>
        <option value="gable">gable</option>
        <option value="single">single pitch</option>
      </Choice>
      <Choice
        label="over"
        name="What the roof is drawn over"
        value={roof.over}
        onChange={(over) => set({ roof: { ...roof, over: over as RoofBase } })}
      >
        <option value="walls">the walls around a click</option>
        <option value="rectangle">a rectangle</option>
        <option value="dormer">a dormer on a slope</option>
      </Choice>
    </>
  );
}

function BayOptions() {
  const { state } = useHeld();
  const { bay, set } = usePick("bay", "set");
  const held = bay ?? bayOf(state.project.units);
  return (
    <>
      <Choice
        label="Bay"
        name="Shape of the bay"
        value={held.shape}
        onChange={(value) => set({ bay: { ...held, shape: value as BayShape } })}
      >
        <option value="square">square</option>
        <option value="angled">angled</option>
        <option value="bowed">bowed</option>
      </Choice>
      <Length
        label="wide"
        name="Width of the bay"
        value={held.width}
        onChange={(width) => set({ bay: { ...held, width } })}
      />
      <Length
        label="out"
        name="How far the bay stands out"
        value={held.out}
        onChange={(out) => set({ bay: { ...held, out } })}
      />
    </>
  );
}

interface LengthProps {
  label: string;
  name: string;
  value: number;
  onChange: (mm: number) => void;
}

/** A length of a tool: read by the service as it is typed anywhere else. */
function Length({ label, name, value, onChange }: LengthProps) {
  const units = useHeld().state.project.units;
  const [text, setText] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  async function take(typed: string) {
    const read = await readLength(typed, units).catch((error: Error) => ({ value: null, wrong: error.message }));
    if (read.value == null) return setWrong(read.wrong ?? "not a length");
    setText(null);
    setWrong(null);
    onChange(read.value);
  }
  return (
    <label className="flex items-center gap-1.5 text-[12px] text-quiet">
      {label}
      <input
        aria-label={name}
        aria-invalid={wrong !== null}
        title={wrong ?? undefined}
        value={text ?? lengthText(value, units)}
        onChange={(event) => setText(event.target.value)}
        onBlur={() => text !== null && void take(text)}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === "Enter" && text !== null) void take(text);
        }}
        className={`h-7 w-[74px] rounded-md border bg-field px-1.5 text-right font-mono text-[12px] text-ink ${wrong ? "border-cut" : "border-rule"}`}
      />
    </label>
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
    <div className="flex items-center gap-1.5 text-[12px] text-quiet">
      {label}
      <Select aria-label={name} value={value} onChange={(value) => onChange(value)}>
        {children}
      </Select>
    </div>
  );
}
