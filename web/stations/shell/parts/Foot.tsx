import type { Footprint } from "../../../../core/foot/footprint.ts";
import { FOOT_LIMITS_MM, type FootSettings } from "../../../../core/foot/settings.ts";
import type { PlanDocument } from "../../../../core/plan/document/document.ts";
import { usePlan } from "../../../document/planStore.ts";
import { useShow } from "../../../lib/show.ts";
import { Figure } from "../../../ui/Figure.tsx";
import { Caution, Part } from "../../../ui/fields.tsx";
import { LengthField } from "../../../ui/LengthField.tsx";
import { messages } from "../messages.ts";

const t = messages.foot;

/** The shell's foot along the board: how far it reaches, whether it is bolted down, and where the cast goes in. */
export function Foot({ document, footprint }: { document: PlanDocument; footprint: Footprint }) {
  const show = useShow();
  const edit = usePlan((plan) => plan.edit);
  const { foot } = document.shell;
  const set = (change: Partial<FootSettings>) =>
    edit((plan) => ({ ...plan, shell: { ...plan.shell, foot: { ...plan.shell.foot, ...change } } }));
  const ticked = (label: string, checked: boolean, change: (checked: boolean) => Partial<FootSettings>) => (
    <label className="mt-1 flex items-center gap-2 text-sm">
      <input
        type="checkbox"
        className="checkbox checkbox-sm"
        checked={checked}
        onChange={(event) => set(change(event.target.checked))}
      />
      {label}
    </label>
  );
  const [wide, deep] = footprint.boardMm;
  return (
    <Part title={t.title}>
      {ticked(t.flanged(show.length(document.jacket.rimWidthMm)), foot.isFlanged, (isFlanged) => ({ isFlanged }))}
      {foot.isFlanged ? (
        <>
          <LengthField
            label={t.beyond}
            valueMm={foot.beyondMm}
            leastMm={FOOT_LIMITS_MM.beyond[0]}
            mostMm={FOOT_LIMITS_MM.beyond[1]}
            stepMm={5}
            onChange={(beyondMm) => set({ beyondMm })}
          />
          {ticked(t.bolted, foot.isBolted, (isBolted) => ({ isBolted }))}
          {foot.isBolted && (
            <>
              <LengthField
                label={t.pitch}
                valueMm={foot.pitchMm}
                leastMm={FOOT_LIMITS_MM.pitch[0]}
                mostMm={FOOT_LIMITS_MM.pitch[1]}
                stepMm={10}
                onChange={(pitchMm) => set({ pitchMm })}
              />
              <LengthField
                label={t.pourHole}
                valueMm={foot.pourHoleMm}
                leastMm={FOOT_LIMITS_MM.pourHole[0]}
                mostMm={FOOT_LIMITS_MM.pourHole[1]}
                stepMm={10}
                hint={t.pourHoleWhy}
                onChange={(pourHoleMm) => set({ pourHoleMm })}
              />
              <Figure label={t.bolts}>{footprint.bolts.length}</Figure>
              {footprint.pourHole && <Figure label={t.plug}>{show.length(footprint.pourHole.acrossMm)}</Figure>}
              {foot.pourHoleMm > 0 && !footprint.pourHole && <Caution>{t.noHole}</Caution>}
            </>
          )}
        </>
      ) : (
        <p className="quiet text-sm">{t.without}</p>
      )}
      <Figure
        label={t.board}
      >{`${show.length(10 * Math.ceil(wide / 10))} × ${show.length(10 * Math.ceil(deep / 10))}`}</Figure>
      <p className="quiet mt-1 text-xs">{foot.isBolted ? t.boltedHow : t.looseHow}</p>
    </Part>
  );
}
