/** The caution of every plan in which the piece is lifted. */
import { pieceMaterial } from "../../materials/pieceMaterial.ts";

/**
 * How the piece is lifted, with its caution: for every plan in which a section leaves after a lift.
 * @param lifted numbers of the sections
 * @param massG what the piece weighs in its mould at most, g
 */
export function liftCaution(lifted: readonly number[], massG: number, surface: string): string {
  const leaves = lifted.length === 1 ? `Section ${lifted[0]} leaves` : `Sections ${lifted.join(", ")} leave`;
  const kg = massG / 1000;
  const told = kg < 20 ? kg.toFixed(0) : (5 * Math.round(kg / 5)).toFixed(0);
  const { name } = pieceMaterial(surface);
  return `${leaves} only after the piece, in its mould, has been lifted off the board or laid over: about ${told} kg if it is solid ${name}, less if it is hollow. Weigh or ask before you lift: two people or a hoist, rated slings, soft ground.`;
}
