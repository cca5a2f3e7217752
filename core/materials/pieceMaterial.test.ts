import { describe, expect, it } from "vitest";
import { pieceMassG, pieceMaterial } from "./pieceMaterial.ts";

describe("what a piece weighs", () => {
  it("goes by what its surface is called", () => {
    expect(pieceMaterial("Carrara marble").name).toBe("stone");
    expect(pieceMaterial("oil clay over steel").name).toBe("clay");
    // Limestone is no lime wood, and weighs four times as much.
    expect(pieceMaterial("limestone").name).toBe("stone");
    expect(pieceMaterial("oak, waxed").name).toBe("wood");
    expect(pieceMaterial("painted plaster").name).toBe("plaster");
    expect(pieceMaterial("fired clay").name).toBe("fired clay");
  });

  it("is that of clay where nobody says", () => {
    expect(pieceMaterial("").name).toBe("clay");
    // A litre of clay.
    expect(pieceMassG(1e6, "")).toBe(1900);
    expect(pieceMassG(1e6, "wax")).toBe(950);
  });
});
