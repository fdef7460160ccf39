import { describe, expect, it } from "vitest";
import type { Bench } from "./client";
import { asked, whole } from "./patch";

const mark = (text: string) => ({ text });

function bench(marks: string[], steps: number[][] | null = null): Bench {
  return { drawings: [{ name: "plan", digest: marks.join(""), marks: marks.map(mark), steps }] } as unknown as Bench;
}

describe("answers that tell what changed", () => {
  it("become whole with what is held", () => {
    const held = bench(["a", "b", "c", "d"]);
    const after = whole(
      bench(
        ["x"],
        [
          [0, 1, 1],
          [2, 2, 0],
        ],
      ),
      held,
    ).drawings[0];
    expect(after.marks).toEqual(["a", "x", "c", "d"].map(mark));
    expect(after.marks[2]).toBe(held.drawings[0].marks[2]);
    expect(() => whole(bench([], [[2, 9, 0]]), held)).toThrow("of another drawing");
    expect(whole(bench(["x"], [[0, 0, 1]]), held).drawings[0].marks).toEqual([mark("x")]);
  });

  it("are asked for where the view is held", () => {
    const wanted = [{ name: "plan" }, { name: "elevation:south" }];
    expect(asked(wanted, bench(["a"])).map((view) => view.have)).toEqual(["a", null]);
    expect(asked(wanted, undefined).map((view) => view.have)).toEqual([null, null]);
  });
});
