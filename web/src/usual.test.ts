import { describe, expect, it } from "vitest";
import { usual } from "./usual";

describe("usual sizes", () => {
  it("are those of the service, in mm", () => {
    expect(usual("door_width", "ft-in")).toBeCloseTo(914.4);
    expect(usual("door_width", "mm")).toBe(900);
    expect(() => usual("moat", "mm")).toThrow("moat");
  });
});
