import type { Outcome, Place, PlanAction } from "./types";

/** An action that shows anew what it would do whenever the pointer moves. */
export abstract class Following implements PlanAction {
  protected pointer: Place | null = null;

  start(): Outcome {
    return this.shown();
  }

  move(place: Place): Outcome {
    this.pointer = place;
    return this.shown();
  }

  abstract click(place: Place): Outcome;
  abstract length(...typed: Parameters<PlanAction["length"]>): Outcome;
  abstract key(...pressed: Parameters<PlanAction["key"]>): Outcome | null;
  protected abstract shown(): Outcome;
}
