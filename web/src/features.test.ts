import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";

const FILES = Object.keys(import.meta.glob("./features/**/*.{ts,tsx}"));
/** The shell puts the others together; they do not know each other. */
const SHELL = "shell";

describe("features", () => {
  it("do not import each other", () => {
    expect(FILES.length).toBeGreaterThan(20);
    const found = FILES.flatMap((file) => {
      const own = file.split("/")[2];
      const text = readFileSync(new URL(file, import.meta.url), "utf8");
      const others = [...text.matchAll(/from "\.\.\/(\w+)\//g)].map((match) => match[1]);
      return own === SHELL ? [] : others.filter((other) => other !== own).map((other) => `${file}: ${other}`);
    });
    expect(found).toEqual([]);
  });
});
