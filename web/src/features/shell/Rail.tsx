import { Grid2x2, Home, LayoutDashboard, ListTree, PanelTop, Scissors, ZoomIn } from "lucide-react";
import { SPLIT, type Step, useClient, usePick } from "../../store";
import { STEPS } from "../../useActions";
import { useHeld } from "../../useProject";

const ICONS: Record<Step, typeof Home> = {
  Plan: LayoutDashboard,
  Heights: ListTree,
  Roof: Home,
  Elevations: Grid2x2,
  Sections: Scissors,
  Details: ZoomIn,
  Sheets: PanelTop,
};

export function Rail() {
  const { step, set } = usePick("step", "set");
  const { bench, state } = useHeld();
  const count = bench.findings.length;
  return (
    <nav aria-label="Steps" className="flex flex-col gap-1 border-r border-rule px-2 py-3">
      {STEPS.map((name) => {
        const Icon = ICONS[name];
        const chosen = step === name;
        return (
          <button
            key={name}
            type="button"
            aria-current={chosen ? "step" : undefined}
            onClick={() => {
              const held = useClient.getState();
              const own = { Sheets: held.sheet, Sections: held.selection ?? held.section }[name as string];
              set({
                step: name,
                tool: "select",
                message: null,
                split: SPLIT[name],
                // A wall section or a detail fills the bench; the next step begins with both panes again.
                ...((held.step === "Sections" || held.step === "Details") && held.fill === "view"
                  ? { fill: "both" as const }
                  : {}),
                // What is selected stays so, with all that is selected with it.
                ...(own ? { selection: own } : {}),
                // A roof is drawn over the highest storey unless another one is chosen.
                ...(name === "Roof" ? { storey: state.storeys.at(-1)?.level } : {}),
              });
            }}
            className={`flex flex-col items-center gap-1 rounded-md border-l-[3px] py-2 text-[11.5px] ${
              chosen ? "border-line bg-paper font-semibold text-line" : "border-transparent text-quiet hover:bg-paper"
            }`}
          >
            <Icon size={20} strokeWidth={1.5} aria-hidden />
            {name}
          </button>
        );
      })}
      <span className="grow" />
      {count > 0 && (
        <button
          type="button"
          className="rounded-md bg-check-ground px-1 py-1.5 text-[11.5px] font-semibold text-check"
          onClick={() => set({ selection: bench.findings[0].element })}
        >
          {count} {count === 1 ? "check" : "checks"}
        </button>
      )}
    </nav>
  );
}
