import { describe, expect, it } from "vitest";
import { newPlan, type PlanDocument } from "../plan/document/document.ts";
import { shellSystems } from "../shell/index.ts";
import { contrast, jacketWarnings, shellWarnings } from "./buildUp.ts";

const base = newPlan();
const kinds = (change: Partial<PlanDocument>, widestMm: number[] = []) => {
  const { jacket, shell } = { ...base, ...change };
  const spans = widestMm.map((mm, k) => ({ section: k + 1, widestMm: mm, limitMm: 500 }));
  return [...jacketWarnings(jacket), ...shellWarnings(shell, shell.ribs.kind, spans)].map(({ kind }) => kind);
};

describe("the build-up", () => {
  it("as it is proposed has nothing against it, in any shell system", () => {
    for (const { id } of shellSystems) expect(kinds({ shell: { ...base.shell, system: id } })).toEqual([]);
  });

  it("tells coats whose pigments look alike, and no others", () => {
    const [first, second, ...rest] = base.jacket.coats;
    const coats = [first, { ...second, pigment: "#e0dcd0" }, ...rest];
    expect(jacketWarnings({ coats })).toEqual([{ kind: "alike", coats: [1, 2] }]);
    expect(contrast("#000000", "#ffffff")).toBeCloseTo(441.67, 1);
    expect(contrast("#123456", "#123456")).toBe(0);
  });

  it("tells a jacket, a coat and a first layer that are too thick, and layers that are too few", () => {
    const [first, ...rest] = base.jacket.coats;
    const jacket = { ...base.jacket, coats: [{ ...first, thicknessMm: 6 }, ...rest] };
    expect(kinds({ jacket })).toEqual(["thick coat", "thick jacket"]);
    const fibre = { ...base.shell, system: "fibre-paste", figures: { firstMm: 6 } };
    expect(kinds({ shell: fibre })).toEqual(["thick first layer"]);
    const thin = { ...base.shell, system: "plaster-bandage", figures: { layers: 3 } };
    expect(kinds({ shell: thin })).toEqual(["few layers"]);
  });

  it("tells a span that nothing stiffens", () => {
    const ribs = (kind: "none" | "poles") => ({ shell: { ...base.shell, ribs: { ...base.shell.ribs, kind } } });
    expect(kinds(ribs("none"), [400, 700])).toEqual(["span"]);
    expect(kinds(ribs("poles"), [400, 700])).toEqual([]);
  });

  it("tells gauze in the coat that takes the print, and none in a later one", () => {
    const gauzed = (n: number) => ({
      jacket: { ...base.jacket, coats: base.jacket.coats.map((coat, k) => ({ ...coat, gauze: k === n })) },
    });
    expect(kinds(gauzed(0))).toEqual(["gauze in print coat"]);
    expect(kinds(gauzed(2))).toEqual([]);
  });

  it("tells a face coat that lies under reinforcement, and edges no thicker than the shell", () => {
    const order = ["jute-1", "splash", "jute-2"];
    const buried = kinds({ shell: { ...base.shell, order } });
    expect(buried).toContain("buried face");
    const weak = { ...base.shell, figures: { thicknessMm: 20, flangeThicknessMm: 20 } };
    expect(kinds({ shell: weak })).toEqual(["weak edge"]);
  });

  it("tells a jacket that is much thicker in some places than in others", () => {
    const coats = [{ thicknessMm: 8, areaMm2: 1e6 }];
    const of = (siliconeMm3: number) =>
      jacketWarnings(base.jacket, { siliconeMm3, rimMm3: 5e5, coats }).map(({ kind }) => kind);
    expect(of(8.5e6)).toEqual([]);
    expect(of(11e6)).toEqual(["uneven jacket"]);
  });
});
