/**
 * Which section each vertex of the jacket belongs to: a Potts labelling of least energy,
 *   sum over vertices of cost(label) + sum of the price of the seams between different labels,
 * by expansion moves (Boykov, Veksler and Zabih 2001), each an exact minimum cut.
 */
import { type LabellingProblem, labellingEnergy } from "./energy.ts";
import { Expansion } from "./expansion.ts";

/** Times every label is expanded, at most; two are the rule. */
const ROUNDS = 5;
/** A gain below this share of the energy is rounding. */
const LEAST_GAIN = 1e-6;

/**
 * Labels of least energy (within the expansion move's guarantee; exact for two labels).
 * @param start labels to begin from; each vertex's cheapest where left out
 */
export function labelVertices(problem: LabellingProblem, start?: ArrayLike<number>): Uint8Array {
  const { costs } = problem;
  const expansion = new Expansion(problem);
  // Of two labels one cut is the answer, whatever it begins from.
  if (costs.length === 2) return expansion.of(new Uint8Array(problem.graph.vertices), 1);
  let label = start ? Uint8Array.from(start) : cheapestLabels(problem);
  let energy = labellingEnergy(problem, label);
  // Until no label has gained since its last turn.
  for (let turn = 0, idle = 0; idle < costs.length && turn < ROUNDS * costs.length; turn++) {
    const trial = expansion.of(label, turn % costs.length);
    const trialEnergy = labellingEnergy(problem, trial);
    idle = trialEnergy < energy * (1 - LEAST_GAIN) ? 1 : idle + 1;
    if (trialEnergy >= energy) continue;
    energy = trialEnergy;
    label = trial;
  }
  return label;
}

function cheapestLabels({ graph, costs }: LabellingProblem): Uint8Array {
  const label = new Uint8Array(graph.vertices);
  for (let v = 0; v < graph.vertices; v++) {
    for (let l = 1; l < costs.length; l++) if (costs[l][v] < costs[label[v]][v]) label[v] = l;
  }
  return label;
}
