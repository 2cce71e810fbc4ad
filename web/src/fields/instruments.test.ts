import { describe, expect, it } from "vitest";
import { instrumentOf, mayFill } from "./instruments";

describe("what an instrument may write over", () => {
  it("fills an empty box or one it filled itself, never what somebody typed", () => {
    expect(mayFill("", undefined)).toBe(true);
    expect(mayFill("8.1 N·m", "8.1 N·m")).toBe(true);
    expect(mayFill("8", "8.1 N·m")).toBe(false);
    expect(mayFill("8", undefined)).toBe(false);
  });

  it("names no instrument for what somebody typed", () => {
    const box = document.createElement("input");
    box.value = "8 N·m";
    expect(instrumentOf(box)).toBe("");
    expect(instrumentOf(null)).toBe("");
  });
});
