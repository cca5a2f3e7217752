/** What speaks against how a jacket and a shell are built up, coat by coat and layer by layer. */
import { jacketThicknessMm, THICK_JACKET_MM } from "../jacket/coat.ts";
import type { PlanDocument } from "../plan/document/document.ts";
import { shellLayers, shellSystem, shellThicknesses } from "../shell/index.ts";
import type { Layup } from "../shell/layup.ts";

export type BuildUpWarning =
  /** Coats, counted from one, whose pigments are hard to tell apart: a missed place does not show. */
  | { readonly kind: "alike"; readonly coats: readonly [number, number] }
  | { readonly kind: "thick jacket"; readonly mm: number }
  /** It takes so much more than coats of an even thickness would. */
  | { readonly kind: "uneven jacket"; readonly share: number }
  /** Gauze shows through a coat that takes the print. */
  | { readonly kind: "gauze in print coat" }
  /** A thick coat sags before it sets. */
  | { readonly kind: "thick coat"; readonly coat: number; readonly mm: number }
  /** Laid after another, though it belongs on the jacket. */
  | { readonly kind: "buried face"; readonly name: string }
  /** Flanges no thicker than the shell: edges break first. */
  | { readonly kind: "weak edge"; readonly mm: number; readonly flangeMm: number }
  /** A first layer so thick traps air, whose holes lock into the next section. */
  | { readonly kind: "thick first layer"; readonly name: string; readonly mm: number }
  | { readonly kind: "few layers"; readonly layers: number; readonly least: number }
  /** It spans farther than it bears, and nothing stiffens it. */
  | { readonly kind: "span"; readonly section: number; readonly mm: number; readonly limitMm: number };

/** Pigments nearer than this in red, green and blue look alike on wet silicone. */
const ALIKE = 60;
/** One brushed coat is no thicker, mm; what is thickened holds more. */
const COAT_MM = { plain: 1.5, thickened: 4 } as const;
/** What of a jacket was measured: all of its silicone without its rim, and what every coat is laid on. */
export interface JacketMeasured {
  readonly siliconeMm3: number;
  readonly rimMm3: number;
  readonly coats: readonly { readonly thicknessMm: number; readonly areaMm2: number }[];
}

/** A jacket that holds so much more than its even coats would is uneven: thick in hollows, thin on what stands out. */
const UNEVEN = 1.25;

function unevenBy({ siliconeMm3, rimMm3, coats }: JacketMeasured): number {
  const evenMm3 = coats.reduce((sum, { thicknessMm, areaMm2 }) => sum + thicknessMm * areaMm2, 0);
  return evenMm3 > 0 ? (siliconeMm3 - rimMm3) / evenMm3 : 1;
}

/**
 * What speaks against how the coats of a jacket are laid.
 * @param measured null while it is not worked out
 */
export function jacketWarnings(
  { coats }: Pick<PlanDocument["jacket"], "coats">,
  measured: JacketMeasured | null = null,
): BuildUpWarning[] {
  const uneven = measured ? unevenBy(measured) : 1;
  const thick = jacketThicknessMm(coats);
  return [
    ...coats
      .slice(1)
      .flatMap(({ pigment }, k): BuildUpWarning[] =>
        contrast(pigment, coats[k].pigment) < ALIKE ? [{ kind: "alike", coats: [k + 1, k + 2] }] : [],
      ),
    ...coats.flatMap(({ thicknessMm, thickened }, k): BuildUpWarning[] =>
      thicknessMm > (thickened ? COAT_MM.thickened : COAT_MM.plain)
        ? [{ kind: "thick coat", coat: k + 1, mm: thicknessMm }]
        : [],
    ),
    ...coats.slice(0, 1).flatMap(({ gauze }): BuildUpWarning[] => (gauze ? [{ kind: "gauze in print coat" }] : [])),
    ...(thick > THICK_JACKET_MM ? [{ kind: "thick jacket", mm: thick } as const] : []),
    ...(uneven > UNEVEN ? [{ kind: "uneven jacket", share: uneven - 1 } as const] : []),
  ];
}

/** How far a section spans, and how far it may, mm. */
export interface SectionSpan {
  readonly section: number;
  readonly widestMm: number;
  readonly limitMm: number;
}

/**
 * What speaks against how a shell, or some of its sections, is laid up.
 * @param spans of the sections that are laid up so; none while that is not worked out
 */
export function shellWarnings(
  layup: Layup,
  ribs: PlanDocument["shell"]["ribs"]["kind"],
  spans: readonly SectionSpan[],
): BuildUpWarning[] {
  const layers = shellLayers(layup);
  const { shellMm, flangeMm } = shellThicknesses(layup);
  const [first] = layers;
  const { leastLayers: least, firstLayerMm: firstMm } = shellSystem(layup.system);
  return [
    ...(first && first.thicknessMm > firstMm
      ? [{ kind: "thick first layer", name: first.name, mm: first.thicknessMm } as const]
      : []),
    ...layers.slice(1).flatMap(({ isFace, name }): BuildUpWarning[] => (isFace ? [{ kind: "buried face", name }] : [])),
    ...(layers.length < least ? [{ kind: "few layers", layers: layers.length, least } as const] : []),
    ...(flangeMm <= shellMm ? [{ kind: "weak edge", mm: shellMm, flangeMm } as const] : []),
    ...(ribs === "none"
      ? spans.flatMap(({ section, widestMm, limitMm }): BuildUpWarning[] =>
          widestMm > limitMm ? [{ kind: "span", section, mm: widestMm, limitMm }] : [],
        )
      : []),
  ];
}

/** How far apart two colours like #a0b0c0 lie, in red, green and blue. */
export function contrast(a: string, b: string): number {
  const of = (css: string) => [1, 3, 5].map((at) => Number.parseInt(css.slice(at, at + 2), 16));
  const [p, q] = [of(a), of(b)];
  return Math.hypot(...p.map((value, k) => value - q[k]));
}
