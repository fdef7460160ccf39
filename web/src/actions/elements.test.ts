import { describe, expect, it } from "vitest";
import { itemOf, movables, nameOf } from "./elements";

const state = {
  elements: [
    {
      id: "w1",
      name: "window W4",
      kind: "openings",
      movable: false,
      removable: true,
      hideable: true,
      state: "new" as const,
    },
    {
      id: "south",
      name: "outer wall",
      kind: "walls",
      movable: true,
      removable: true,
      hideable: true,
      state: "existing" as const,
    },
  ],
};

describe("elements", () => {
  it("are called as the service says", () => {
    expect(["w1", "south", "gone"].map((id) => nameOf(state, id))).toEqual(["window W4", "outer wall", "note"]);
    expect(itemOf(state, null)).toBeUndefined();
  });

  it("are moved when the service says that they may be", () => {
    expect(movables(state, ["w1", null, "south", "gone"])).toEqual(["south"]);
  });
});
