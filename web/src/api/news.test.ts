import { describe, expect, it } from "vitest";
import { withNews } from "./news";

describe("news of an answer", () => {
  const whole = {
    job: {
      panels: [
        { id: "p1", x: 1 },
        { id: "p2", x: 2 },
      ],
    },
    snags: ["a", "b", "c"],
    plan: { speed: 3 },
  };

  it("replaces a branch and keeps the others as the same objects", () => {
    const next = withNews(whole, [{ at: ["job", "panels", 1, "x"], value: 5 }]);
    expect(next.job.panels).toEqual([
      { id: "p1", x: 1 },
      { id: "p2", x: 5 },
    ]);
    expect(next.job.panels[0]).toBe(whole.job.panels[0]);
    expect(next.snags).toBe(whole.snags);
    expect(whole.job.panels[1]?.x).toBe(2);
  });

  it("lets entries of a list give way, appear and go", () => {
    const at = ["snags"];
    expect(withNews(whole, [{ at, start: 1, drop: 1, items: ["x", "y"] }]).snags).toEqual(["a", "x", "y", "c"]);
    expect(withNews(whole, [{ at, start: 3, drop: 0, items: ["d"] }]).snags).toEqual(["a", "b", "c", "d"]);
    expect(withNews(whole, [{ at, start: 0, drop: 3, items: [] }]).snags).toEqual([]);
  });

  it("sets what was nothing and takes what was there", () => {
    expect(withNews(whole, [{ at: ["plan"], value: null }]).plan).toBeNull();
    expect(withNews({ plan: null as null | object }, [{ at: ["plan"], value: { speed: 1 } }]).plan).toEqual({
      speed: 1,
    });
  });
});
