import type { Edit } from "../api/client";
import { EMPTY, type Outcome, type Place, type PlanAction } from "./types";

/** Something placed with one click: it is previewed under the pointer, and what was placed is selected. */
export abstract class OnePoint implements PlanAction {
  protected at: Place | null = null;

  start(): Outcome {
    return this.shown();
  }

  move(place: Place): Outcome {
    this.at = place;
    return this.shown();
  }

  click(place: Place): Outcome {
    this.at = place;
    const edit = this.edit(place);
    if (!edit) return { ...this.shown(), wrong: place.elsewhere ?? this.missing };
    return { ...this.shown(), preview: undefined, edits: [edit], done: { select: this.made } };
  }

  /** Along a wall, a typed length is the clear distance from its start; elsewhere nothing is typed. */
  length(mm: number): Outcome {
    if (this.width === null) return this.shown();
    if (this.at?.wall === undefined)
      return { ...this.shown(), wrong: "Point at a wall first, then type the distance." };
    return this.click({ ...this.at, along: mm + this.width / 2 });
  }

  key(): Outcome | null {
    return null;
  }

  /** The width of what is placed along a wall; null for what stands free. */
  protected get width(): number | null {
    return null;
  }

  /** What is said when it cannot be placed here. */
  protected readonly missing: string = "";
  /** The id to select. */
  protected abstract get made(): string;
  protected abstract readonly hint: string;
  protected abstract edit(place: Place): Edit | null;

  /** What marks the place, beside the preview. */
  protected dots(place: Place): { u: number; w: number }[] {
    return [place];
  }

  /** Whether it fits here, so that a preview can be shown. */
  protected fits(_: Place): boolean {
    return true;
  }

  protected shown(): Outcome {
    const edit = this.at && this.edit(this.at);
    return {
      overlay: this.at && edit ? { lines: [], dots: this.dots(this.at) } : EMPTY,
      hint: this.hint,
      preview: this.at && edit && this.fits(this.at) ? [edit] : undefined,
      asks: this.width === null ? undefined : "clear distance from the start of the wall",
    };
  }
}
