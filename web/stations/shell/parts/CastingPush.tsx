import { liquidHead } from "../../../../core/casting/liquidHead.ts";
import {
  type CastingSettings,
  isCharge,
  POUR_POSITIONS,
  type PourPosition,
} from "../../../../core/casting/settings.ts";
import type { Strap } from "../../../../core/casting/straps.ts";
import { DEFERENCE } from "../../../../core/materials/cautions.ts";
import type { BuiltWall } from "../../../../core/plan/builtWalls.ts";
import type { PlanDocument } from "../../../../core/plan/document/document.ts";
import type { PlanFigures } from "../../../../core/plan/results/figures.ts";
import { usePlan } from "../../../document/planStore.ts";
import { useShow } from "../../../lib/show.ts";
import { Figure } from "../../../ui/Figure.tsx";
import { Caution, Choice, More, NumberField, Part } from "../../../ui/fields.tsx";
import { messages } from "../messages.ts";

const t = messages.push;

/** How hard a liquid cast pushes the sections apart, and whether the bolts hold it. */
export function CastingPush({
  document,
  figures,
  walls,
  straps,
}: {
  document: PlanDocument;
  figures: PlanFigures;
  walls: readonly BuiltWall[];
  /** Round the mould, where walls are strapped. */
  straps: readonly Strap[];
}) {
  const show = useShow();
  const edit = usePlan((plan) => plan.edit);
  const { brief, shell } = document;
  const { cavity } = figures.report;
  if (!cavity || walls.length === 0) return null;
  const { casting } = shell;
  const set = (change: Partial<CastingSettings>) =>
    edit((plan) => ({ ...plan, shell: { ...plan.shell, casting: { ...plan.shell.casting, ...change } } }));
  const charged = isCharge(brief.castMethod);
  const head = liquidHead({ wetted: cavity, walls, casting, castMaterial: brief.castMaterial, isCharge: charged });
  /** Are the two held by straps alone? */
  const isStrapped = (pair: readonly number[]) => {
    const own = walls.filter(({ wall }) => wall.sections.every((section) => pair.includes(section)));
    return straps.length > 0 && own.every(({ choice }) => choice?.joint === "straps");
  };
  return (
    <Part title={t.title}>
      <Choice<PourPosition>
        label={t.position}
        value={casting.position}
        options={POUR_POSITIONS.map((value) => ({ value, name: t.positions[value] }))}
        onChange={(position) => set({ position })}
      />
      <Figure label={t.depth(charged)}>{show.length(head.depthMm)}</Figure>
      <Figure label={t.pressure}>{t.kilopascals(head.pressureKPa.toFixed(1))}</Figure>
      {head.pairs.map(({ sections, forceN, bolts, perBoltN, neededBolts }) => (
        <div key={sections.join()}>
          <Figure label={t.pair(...sections)}>{t.newtons(round(forceN))}</Figure>
          <p className="quiet text-right text-xs">
            {isStrapped(sections)
              ? t.strapped(straps.length, round(forceN / (2 * straps.length)))
              : perBoltN === null
                ? t.noBolts(neededBolts)
                : t.perBolt(bolts, round(perBoltN))}
          </p>
          {!isStrapped(sections) && (perBoltN === null ? forceN > casting.boltLoadN : perBoltN > casting.boltLoadN) && (
            <Caution>{t.tooMuch(neededBolts, bolts)}</Caution>
          )}
        </div>
      ))}
      {brief.castMethod === "face-coat" && <p className="quiet text-sm">{t.brushed}</p>}
      <More title={t.figures}>
        <NumberField
          label={t.full}
          unit="%"
          value={Math.round(100 * casting.fillShare)}
          least={5}
          most={100}
          step={5}
          onChange={(share) => set({ fillShare: share / 100 })}
        />
        <NumberField
          label={t.density}
          unit="g/cm³"
          value={head.densityGPerCm3}
          least={0.1}
          most={12}
          step={0.05}
          onChange={(densityGPerCm3) => set({ densityGPerCm3 })}
        />
        <NumberField
          label={t.boltLoad}
          unit="N"
          value={casting.boltLoadN}
          least={10}
          most={50_000}
          step={10}
          onChange={(boltLoadN) => set({ boltLoadN })}
        />
      </More>
      <p className="quiet mt-2 text-xs">
        {t.estimate} {DEFERENCE}
      </p>
    </Part>
  );
}

/** No more figures than an estimate bears. */
function round(newtons: number): string {
  return Number(newtons.toPrecision(2)).toLocaleString("en-GB").replaceAll(",", "\u2009");
}
