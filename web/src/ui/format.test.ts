import { describe, expect, it } from "vitest";
import { plainNumber } from "./format";

describe("plain numbers", () => {
  it("are read with a point or a comma, and nothing is nothing", () => {
    expect([" 12 ", "38.50", "38,5", "-3", ""].map(plainNumber)).toEqual([12, 38.5, 38.5, -3, null]);
  });
  it("are refused where they are none, not dropped", () => {
    for (const typed of ["abc", "Infinity", "1.234,5", "NaN", "12 mm"])
      expect(() => plainNumber(typed)).toThrow(`“${typed}” is not a number.`);
  });
});
