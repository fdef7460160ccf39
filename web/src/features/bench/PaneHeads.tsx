import { Maximize2, Minimize2, Scan } from "lucide-react";
import type { Drawing, State } from "../../api/client";
import { usePick } from "../../store";
import { TOOLS, toolsByTrade } from "../../tools";
import { Button } from "../../ui/Button";
import { Select } from "../../ui/Select";
import { useActions } from "../../useActions";
import { useHeld } from "../../useProject";
import { DetailBar } from "./DetailBar";
import { EngineerButtons } from "./EngineerButtons";
import { SectionBar } from "./SectionBar";
import { ShownChips } from "./ShownChips";
import { ToolGroup } from "./ToolGroup";
import { ToolOptions } from "./ToolOptions";
import { ViewPanel } from "./ViewPanel";
import { LADDER, type Panes } from "./viewport";
import { WorksChoice } from "./WorksChoice";

interface Props {
  panes: Panes;
  plan: Drawing | undefined;
  view: Drawing | undefined;
  onFit: () => void;
}

/** What names a plan in the list: its level, which of its plans, and the deck that it shows. */
function planValue(level: string, kind: string, deck: string | null): string {
  return [level, kind, deck].filter(Boolean).join("|");
}

/** The plans of a floor, in the order of work. */
const FLOOR_PLANS = ["framing", "structure", "sheets"] as const;

/** The plans that can be chosen: of each storey from above, and of each floor those that there are. */
function plansOf(state: State, floors: boolean): { value: string; label: string }[] {
  return [...state.storeys].reverse().flatMap(({ level, name }) => {
    const plan = { value: level, label: `${name} plan` };
    if (!floors) return [plan];
    const decks = (state.project.decks ?? []).filter((held) => held.level === level);
    const laid = (state.project.floors ?? []).filter((held) => held.level === level);
    return [
      plan,
      ...[...laid, ...decks].flatMap((held) => [
        // Of a slab there is no framing, of boards no sheets: the server says which plans there are.
        ...FLOOR_PLANS.flatMap((kind) => {
          const view = state.views.find(({ name }) => name === `plan:${kind}:${held.id}`);
          return view ? [{ value: planValue(level, kind, "drop" in held ? held.id : null), label: view.title }] : [];
        }),
      ]),
    ];
  });
}

/** Names of the two panes, the actions of the step, and what makes a pane fill the bench. */
export function PaneHeads({ panes, plan, view, onFit }: Props) {
  const { state, storey, viewName } = useHeld();
  const { step, tool, fill, side, set, elevation, framing, framed } = usePick(
    "step",
    "tool",
    "fill",
    "side",
    "set",
    "elevation",
    "framing",
    "framed",
  );
  const own = state.project.elevations ?? [];
  const seen = elevation ? "seen along its own direction" : `seen from the ${side}`;
  const actions = useActions();
  const joisted = framed ?? state.project.floors?.find((held) => held.level === storey.level)?.id;
  const kind = step === "Plan" && state.views.some(({ name }) => name === `plan:${framing}:${joisted}`) ? framing : "";
  const plans = plansOf(state, step === "Plan");
  const several = TOOLS.filter((item) => item.steps.includes(step)).length;
  return (
    <>
      {panes.planTop > 0 && (
        <div
          className="absolute inset-x-0 top-0 flex items-center gap-3 overflow-hidden border-b border-rule bg-ground/60 px-3"
          style={{ height: panes.planTop }}
        >
          <h2 className="shrink-0 text-[13px] font-semibold">
            {plans.length > 1 ? (
              <Select
                aria-label="Storey of the plan"
                value={planValue(storey.level, kind, kind && framed)}
                onChange={(value) => {
                  const [level, chosen = "", deck = null] = value.split("|");
                  const shown = { framing: chosen as typeof framing, framed: deck };
                  set({ storey: level, ...(step === "Plan" ? shown : {}) });
                }}
                className="font-semibold"
              >
                {plans.map(({ value, label }) => (
                  <option key={value} value={value}>
                    {label}
                  </option>
                ))}
              </Select>
            ) : (
              (plan?.title ?? "Plan")
            )}
          </h2>
          {kind === "structure" ? (
            <EngineerButtons key={joisted} view={`plan:structure:${joisted}`} />
          ) : (
            <WorksChoice view={storey.plan} />
          )}
          <div role="toolbar" aria-label={`${step} actions`} className="flex min-w-0 gap-0.5 overflow-x-auto">
            {toolsByTrade(step).map(({ trade, tools }) => (
              <ToolGroup
                key={trade ?? tools[0].tool}
                trade={trade}
                tools={tools}
                apart={tools.length > 2 || several > 6}
                chosen={tool}
                onChoose={(chosen) => set({ tool: chosen, message: null })}
              />
            ))}
            {actions
              .filter((action) => action.step === step)
              .map((action) => (
                <Button key={action.id} onClick={action.run}>
                  {action.label}
                </Button>
              ))}
          </div>
          <span className="grow" />
          <ViewPanel drawing={plan} />
          <PaneButtons onFit={onFit} />
        </div>
      )}
      {panes.planTop > 0 && panes.planBottom - panes.planTop > 80 && <ToolOptions top={panes.planTop} />}
      {panes.viewBottom - panes.viewTop > 60 && (
        <div
          className="pointer-events-none absolute flex flex-wrap items-start gap-x-4 gap-y-1"
          style={{ left: LADDER + 12, top: panes.viewTop + 8, right: 96 }}
        >
          <div className="rounded bg-paper/85 pr-1">
            <h2 className="text-[13px] font-semibold">{view?.title ?? "View"}</h2>
            <p className="text-[11px] text-quiet">
              {view?.name.startsWith("section:setting:")
                ? "one string unfolded"
                : view?.name.startsWith("detail:")
                  ? "cut across a junction; it goes with what meets there"
                  : view?.kind === "section"
                    ? view.title.startsWith("Wall")
                      ? "whole here; on paper without what is framed"
                      : "cut along its line on the plan"
                    : seen}
            </p>
          </div>
          <ViewPanel drawing={view} />
          <WorksChoice view={viewName} />
          <ShownChips />
          {step === "Elevations" && own.length > 0 && (
            <div className="pointer-events-auto flex gap-1">
              {own.map((held) => (
                <Button
                  key={held.id}
                  tone={elevation === held.id ? "chosen" : "plain"}
                  aria-pressed={elevation === held.id}
                  onClick={() => set({ elevation: held.id, selection: held.id })}
                >
                  {held.name}
                </Button>
              ))}
            </div>
          )}
          {step === "Sections" && <SectionBar />}
          {step === "Details" && <DetailBar />}
        </div>
      )}
      {panes.planTop === 0 && (
        <div className="absolute right-2" style={{ top: panes.viewTop + 8 }}>
          <PaneButtons onFit={onFit} />
        </div>
      )}
      {fill === "both" && (
        <div className="absolute right-2" style={{ top: panes.viewTop + 8 }}>
          <Button
            aria-label="Let the view fill the bench"
            title="Let the view fill the bench"
            onClick={() => set({ fill: "view" })}
          >
            <Maximize2 size={14} aria-hidden />
          </Button>
        </div>
      )}
    </>
  );
}

/** Fit the drawings, and let the plan fill the bench or bring both panes back. */
function PaneButtons({ onFit }: { onFit: () => void }) {
  const { fill, set } = usePick("fill", "set");
  const label = fill === "both" ? "Let the plan fill the bench" : "Show both panes";
  return (
    <div className="flex shrink-0 gap-1">
      <Button aria-label="Fit the drawings" title="Fit the drawings" onClick={onFit}>
        <Scan size={14} aria-hidden />
      </Button>
      <Button aria-label={label} title={label} onClick={() => set({ fill: fill === "both" ? "plan" : "both" })}>
        {fill === "both" ? <Maximize2 size={14} aria-hidden /> : <Minimize2 size={14} aria-hidden />}
      </Button>
    </div>
  );
}
