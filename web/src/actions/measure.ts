import { type ActionKey, EMPTY, type Outcome, type Place, type PlanAction } from "./types";

/** Measures between two points: the distance, across and up the sheet, and the angle from its right. Keeps nothing. */
export class Measure implements PlanAction {
  private first: Place | null = null;
  private second: Place | null = null;
  private done = false;

  get from(): Place | null {
    return this.done ? null : this.first;
  }

  start(): Outcome {
    return this.shown();
  }

  move(place: Place): Outcome {
    if (this.first && !this.done) this.second = place;
    return this.shown();
  }

  click(place: Place): Outcome {
    if (!this.first || this.done) {
      this.first = place;
      this.second = null;
      this.done = false;
    } else {
      this.second = place;
      this.done = true;
    }
    return this.shown();
  }

  length(): Outcome {
    return this.shown();
  }

  key(key: ActionKey): Outcome | null {
    if (key !== "Escape" || !this.first) return null;
    this.first = null;
    this.second = null;
    this.done = false;
    return this.shown();
  }

  private shown(): Outcome {
    const [a, b] = [this.first, this.second];
    if (!a) return { overlay: EMPTY, hint: "Click the first point to measure from." };
    if (!b) return { overlay: { lines: [], dots: [a] }, hint: "Click the second point. Escape begins again." };
    const [du, dw] = [b.u - a.u, b.w - a.w];
    const degrees = (Math.atan2(dw, du) * 180) / Math.PI;
    return {
      overlay: {
        lines: [{ u1: a.u, w1: a.w, u2: b.u, w2: b.w }],
        dots: [a, b],
        label: { u: (a.u + b.u) / 2, w: (a.w + b.w) / 2, length: Math.hypot(du, dw) },
        closing: { du, dw, words: ["across", "deep"] },
      },
      hint: `At ${Math.round(degrees * 100) / 100}° from the right of the sheet. ${
        this.done ? "Click to measure again." : "Click the second point."
      }`,
    };
  }
}
