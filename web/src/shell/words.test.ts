import { describe, expect, it } from "vitest";
import type { FootPlace, Panel } from "../api/types";
import { noteOf } from "../fields/Field";
import { landingWords, panelName } from "../roof/names";
import { linkThickness } from "../stations/hold/Chain";
import { decoded } from "../ui/FileButton";
import { across, alsoIn, example, inches, length, likely, shown, speed, speedNumber } from "../ui/format";

describe("numbers as people read them", () => {
  it("never tells a chance as certain", () => {
    expect(likely(0.9999)).toBe("over 99 %");
    expect(likely(0.93)).toBe("93 %");
  });
  it("shows inches to the sixteenth, reduced", () => {
    expect(inches(134.9375)).toBe('5 5/16"');
    expect(inches(12.7)).toBe('1/2"');
    expect(inches(-88.9)).toBe('−3 1/2"');
    expect(inches(0.1)).toBe('0"');
  });

  it("rounds speeds down, never up", () => {
    expect(speed(30.9, "metric")).toBe("111 km/h");
    expect(speedNumber(100 / 3.6, "metric")).toBe(100);
    expect(speed(31.2928, "imperial")).toBe("70 mph");
  });

  it("says lengths and sides", () => {
    expect(length(1234.4, "metric")).toBe("1234 mm");
    expect(length(4.25, "metric")).toBe("4.3 mm");
    expect(across(-590, "metric")).toBe("590 mm to port");
    expect(across(0, "metric")).toBe("on the centre line");
  });

  it("keeps the text a person typed", () => {
    expect(shown({ mm: 2350, text: "235 cm" }, "imperial")).toBe("235 cm");
    expect(shown({ mm: 2350, text: null }, "metric")).toBe("2350 mm");
    expect(shown(null, "metric")).toBe("");
  });
});

describe("accessible names", () => {
  const place = { panel: "p1", foot: "f1", landing: "skin", member: 3, off_mm: -121 } as FootPlace;
  it("tell where a foot lands", () => {
    expect(landingWords(place, "metric")).toBe("121 mm in front of member 3");
    expect(landingWords({ ...place, landing: "member" }, "metric")).toBe("in member 3");
    expect(landingWords({ ...place, member: null, off_mm: null }, "metric")).toBe("no member known");
  });
  it("tell a panel's place and its stops", () => {
    const panel = { id: "p1", name: "Front", x: { mm: 230 }, y: { mm: -590 } } as Panel;
    expect(panelName(panel, [], "metric")).toBe("Front, 230 mm along, 590 mm to port");
  });
});

describe("the chain", () => {
  it("draws a link as thick as its margin", () => {
    const sizes = [0.2, 0.5, 1, 2, 10].map(linkThickness);
    expect([...sizes].sort((a, b) => b - a)).toEqual(sizes);
    expect(sizes[0]).toBe(34);
    expect(sizes.at(-1)).toBeGreaterThan(0);
  });
});

describe("what a box and a sheet say in the job's units", () => {
  it("turns examples into the units of the job", () => {
    expect(example("110 km/h", "metric")).toBe("110 km/h");
    expect(example("110 km/h", "imperial")).toBe("70 mph");
    expect(example("150 kg", "imperial")).toBe("331 lb");
    expect(example("25 °C", "imperial")).toBe("77 °F");
    expect(example("966 mm", "imperial")).toBe('38 1/16"');
    expect(example("16 ga", "imperial")).toBe("16 ga");
  });

  it("adds the other unit only where it says something new", () => {
    expect(alsoIn(1, "", "imperial")).toBe("");
    expect(alsoIn(25.4, "mm", "metric")).toBe("");
    expect(alsoIn(25.4, "mm", "imperial")).toBe("1 in");
  });

  it("says what a box holds that is not stored", () => {
    expect(noteOf({ kind: "stored" }, "250 kg")).toBeNull();
    expect(noteOf({ kind: "refused", why: "250 k is no mass." }, "250 kg")).toMatch(
      /250 k is no mass.*Not stored: .*250 kg/,
    );
    expect(noteOf({ kind: "left", on: "Monday" }, "250 kg")).toMatch(/250 kg/);
  });
});

describe("files as programs write them", () => {
  it("reads the usual encodings", () => {
    const bytes = (...list: number[]) => new Uint8Array(list).buffer;
    expect(decoded(new TextEncoder().encode("½ Zoll").buffer as ArrayBuffer)).toBe("½ Zoll");
    expect(decoded(bytes(0xff, 0xfe, 0x41, 0x00, 0xbd, 0x00))).toBe("A½");
    expect(decoded(bytes(0xfe, 0xff, 0x00, 0x41))).toBe("A");
    expect(decoded(bytes(0x4d, 0xfc, 0x68, 0x6c, 0x65))).toBe("Mühle");
  });
});
