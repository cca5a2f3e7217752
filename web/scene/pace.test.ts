import type * as THREE from "three";
import { describe, expect, it } from "vitest";
import { keepPrograms } from "./pace.ts";

/** A renderer's list of programs, each counted by the materials that use it. */
function rendererWith(...usedTimes: number[]) {
  return { info: { programs: usedTimes.map((times) => ({ usedTimes: times })) } } as unknown as Pick<
    THREE.WebGLRenderer,
    "info"
  >;
}

describe("programs of a renderer", () => {
  it("are each used once more than by its materials, however often they are looked at", () => {
    const renderer = rendererWith(1, 3);
    keepPrograms(renderer);
    keepPrograms(renderer);
    expect(renderer.info.programs?.map(({ usedTimes }) => usedTimes)).toEqual([2, 4]);
  });

  it("that come later are kept too", () => {
    const renderer = rendererWith(1);
    keepPrograms(renderer);
    renderer.info.programs?.push(...(rendererWith(2).info.programs ?? []));
    keepPrograms(renderer);
    expect(renderer.info.programs?.map(({ usedTimes }) => usedTimes)).toEqual([2, 3]);
  });
});
