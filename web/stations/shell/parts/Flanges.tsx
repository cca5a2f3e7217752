import { boltOffMm, flangeWidthMm, leastWidthMm } from "../../../../core/flange/fastenings.ts";
import {
  BOLT_HOLDS,
  type BoltHold,
  FLANGE_WIDTHS_MM,
  type FlangeKeyKind,
  type FlangeSettings,
  KEY_KINDS,
} from "../../../../core/flange/settings.ts";
import { shellTerms } from "../../../../core/plan/builtWalls.ts";
import type { PlanDocument } from "../../../../core/plan/document/document.ts";
import { useShow } from "../../../lib/show.ts";
import { Choice, More, Part } from "../../../ui/fields.tsx";
import { LengthField } from "../../../ui/LengthField.tsx";
import { messages } from "../messages.ts";
import { useFlangeEdits } from "../useWalls.ts";

const t = messages.flanges;

/** What goes for all flanges: their width, their bolts and their keys. */
export function Flanges({ document }: { document: PlanDocument }) {
  const show = useShow();
  const { set } = useFlangeEdits();
  const { flanges } = document.shell;
  const terms = shellTerms(document.shell);
  const bolted = (change: Partial<FlangeSettings["bolts"]>) =>
    set((held) => ({ ...held, bolts: { ...held.bolts, ...change } }));
  const keyed = (change: Partial<FlangeSettings["keys"]>) =>
    set((held) => ({ ...held, keys: { ...held.keys, ...change } }));
  const neededMm = leastWidthMm(flanges, terms);
  return (
    <Part title={t.title}>
      <Choice
        label={t.width}
        value={flanges.widthMm === null ? "rule" : "hand"}
        options={[
          {
            value: "rule",
            name: `${t.widthByRule}: ${show.length(flangeWidthMm({ ...flanges, widthMm: null }, terms))}`,
          },
          { value: "hand", name: t.offByHand },
        ]}
        onChange={(how) => set((held) => ({ ...held, widthMm: how === "rule" ? null : flangeWidthMm(held, terms) }))}
      />
      {flanges.widthMm !== null && (
        <LengthField
          label={t.width}
          valueMm={flanges.widthMm}
          leastMm={FLANGE_WIDTHS_MM.least}
          mostMm={FLANGE_WIDTHS_MM.most}
          {...(flanges.widthMm < neededMm ? { hint: t.needed(show.length(Math.ceil(neededMm))) } : {})}
          onChange={(widthMm) => set((held) => ({ ...held, widthMm }))}
        />
      )}
      <h4 className="mt-2 text-sm font-medium">{t.bolts}</h4>
      <LengthField
        label={t.diameter}
        valueMm={flanges.bolts.diameterMm}
        leastMm={3}
        mostMm={24}
        onChange={(diameterMm) => bolted({ diameterMm })}
      />
      <LengthField
        label={t.pitch}
        valueMm={flanges.bolts.pitchMm}
        leastMm={30}
        mostMm={600}
        stepMm={5}
        onChange={(pitchMm) => bolted({ pitchMm })}
      />
      <Choice<BoltHold>
        label={t.hold}
        value={flanges.bolts.hold}
        options={BOLT_HOLDS.map((value) => ({ value, name: t.holds[value] }))}
        onChange={(hold) => bolted({ hold })}
      />
      {flanges.bolts.hold === "inserts" && <p className="quiet text-xs">{t.insertsHow}</p>}
      <Choice
        label={t.off}
        value={flanges.bolts.offMm === null ? "rule" : "hand"}
        options={[
          {
            value: "rule",
            name: `${t.offByRule}: ${show.length(Math.round(boltOffMm({ ...flanges, bolts: { ...flanges.bolts, offMm: null } }, terms)))}`,
          },
          { value: "hand", name: t.offByHand },
        ]}
        onChange={(how) => bolted({ offMm: how === "rule" ? null : Math.round(boltOffMm(flanges, terms)) })}
      />
      {flanges.bolts.offMm !== null && (
        <LengthField
          label={t.off}
          valueMm={flanges.bolts.offMm}
          leastMm={5}
          mostMm={FLANGE_WIDTHS_MM.most}
          onChange={(offMm) => bolted({ offMm })}
        />
      )}
      <Choice<FlangeKeyKind>
        label={t.keys}
        value={flanges.keys.kind}
        options={KEY_KINDS.map((value) => ({ value, name: t.kinds[value] }))}
        onChange={(kind) => keyed({ kind })}
      />
      {flanges.keys.kind !== "none" && (
        <More title={`${t.radius}, ${t.keyPitch.toLowerCase()}`}>
          <LengthField
            label={t.radius}
            valueMm={flanges.keys.radiusMm}
            leastMm={3}
            mostMm={25}
            onChange={(radiusMm) => keyed({ radiusMm })}
          />
          <LengthField
            label={t.keyPitch}
            valueMm={flanges.keys.pitchMm}
            leastMm={50}
            mostMm={1000}
            stepMm={10}
            onChange={(pitchMm) => keyed({ pitchMm })}
          />
        </More>
      )}
      <p className="quiet mt-1 text-xs">{t.typical}</p>
    </Part>
  );
}
