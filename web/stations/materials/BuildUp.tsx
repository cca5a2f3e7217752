/** What jacket and shell are built up of: coats and layers in the order they are laid, and what speaks against them. */
import { jacketThicknessMm } from "../../../core/jacket/coat.ts";
import { nameOf } from "../../../core/materials/catalogue.ts";
import { withSilicone } from "../../../core/plan/document/choose.ts";
import { coatSilicones, type PlanDocument } from "../../../core/plan/document/document.ts";
import { spanFor } from "../../../core/ribs/shape.ts";
import { type Layup, layupFor } from "../../../core/shell/layup.ts";
import { type BuildUpWarning, jacketWarnings, type SectionSpan, shellWarnings } from "../../../core/takeoff/buildUp.ts";
import { coatMinor } from "../../../core/takeoff/cost.ts";
import { usePlan } from "../../document/planStore.ts";
import { type Show, useShow } from "../../lib/show.ts";
import { Caution } from "../../ui/fields.tsx";
import type { StationProps } from "../station.ts";
import { Head } from "./Head.tsx";
import { Layers } from "./Layers.tsx";
import { type LaidUp, useLaidUp } from "./laidSection.ts";
import { MaterialSelect } from "./MaterialSelect.tsx";
import { messages } from "./messages.ts";

const t = messages.buildUp;

export function BuildUp(props: StationProps) {
  const { document, planning } = props;
  const show = useShow();
  const laid = useLaidUp(document, planning);
  const report = planning.bundle?.figures.report;
  const spans = (report?.spans.widestMm ?? []).map((widestMm, k): SectionSpan & { readonly layup: Layup } => ({
    ...{ section: k + 1, widestMm, layup: layupFor(document.shell, laid.ids[k]) },
    limitMm: spanFor(document.shell, layupFor(document.shell, laid.ids[k])),
  }));
  const own = document.shell.sections.filter(({ section }) => laid.ids.includes(section));
  const isOwn = (layup: Layup) => own.some((each) => each === layup);
  const { kind } = document.shell.ribs;
  const warnings = [
    ...jacketWarnings(document.jacket, report?.jacket ?? null),
    ...shellWarnings(
      document.shell,
      kind,
      spans.filter(({ layup }) => !isOwn(layup)),
    ),
    ...own.flatMap((layup) =>
      shellWarnings(
        layup,
        kind,
        spans.filter((span) => span.layup === layup),
      ),
    ),
  ];
  return (
    <>
      {warnings.map((warning) => (
        <Caution key={JSON.stringify(warning)}>{inWords(warning, show)}</Caution>
      ))}
      <Coats {...props} />
      <Whose laid={laid} own={own.map(({ section }) => section)} />
      <Layers document={document} laid={laid} units={planning.bundle?.figures.takeoff.units ?? {}} />
      <p className="quiet mt-2 text-sm">{t.edges}</p>
    </>
  );
}

function Coats({ document, planning }: StationProps) {
  const show = useShow();
  const edit = usePlan((plan) => plan.edit);
  const { own } = document.materials;
  const { coats, silicone } = document.jacket;
  const silicones = coatSilicones(document.jacket);
  const jacket = planning.bundle?.figures.report.jacket;
  const mm = (value: number) => show.length(Math.round(10 * value) / 10);
  const costMinor = (k: number) =>
    coatMinor(silicones[k], jacket?.coats[k]?.massG ?? 0, planning.bundle?.figures.takeoff.units ?? {});
  const setGauze = (id: string, gauze: boolean) =>
    edit((plan) => ({
      ...plan,
      jacket: {
        ...plan.jacket,
        coats: plan.jacket.coats.map((coat) => (coat.id === id ? { ...coat, gauze } : coat)),
      },
    }));
  return (
    <>
      <h2 className="mt-3 text-lg font-semibold">
        {t.jacket} <span className="quiet text-sm font-normal">{nameOf(silicone, own)}</span>
      </h2>
      <table className="table table-sm mb-6 [&_td]:px-2 [&_th]:px-2" data-testid="coats">
        <Head names={[t.what, t.thickness, t.thickened, t.gauze, t.of, t.weighs, t.costs]} />
        <tbody>
          {coats.map((coat, k) => (
            <tr key={coat.id}>
              <td className="whitespace-nowrap">
                <span className="mr-2 inline-block h-3.5 w-3.5 align-middle" style={{ background: coat.pigment }} />
                {t.coat(k + 1)}
              </td>
              <td>{mm(coat.thicknessMm)}</td>
              <td>{coat.thickened ? t.yes : t.no}</td>
              <td>
                <input
                  type="checkbox"
                  className="checkbox checkbox-sm"
                  aria-label={t.gauzeInCoat(k + 1)}
                  checked={coat.gauze}
                  onChange={(event) => setGauze(coat.id, event.target.checked)}
                />
              </td>
              <td>
                <MaterialSelect
                  className="select-xs w-36"
                  label={t.siliconeOfCoat(k + 1)}
                  usual="tin-brushable-low"
                  value={coat.silicone}
                  kept={own}
                  none={t.asTheJacket}
                  onChoose={(id, entry) =>
                    edit((plan) => withSilicone(plan, coat.id, id as PlanDocument["jacket"]["silicone"] | null, entry))
                  }
                />
              </td>
              <td className="whitespace-nowrap">{jacket?.coats[k] ? show.mass(jacket.coats[k].massG) : "…"}</td>
              <td className="whitespace-nowrap">{jacket?.coats[k] ? show.money(costMinor(k)) : "…"}</td>
            </tr>
          ))}
          <Besides {...{ document, planning, mm }} />
          <tr className="font-medium">
            <td>{t.inAll}</td>
            <td>{mm(jacketThicknessMm(coats))}</td>
            <td colSpan={3} />
            <td>{jacket ? show.mass(jacket.siliconeG) : "…"}</td>
            <td className="whitespace-nowrap">
              {jacket ? show.money(coats.reduce((sum, _, k) => sum + costMinor(k), 0)) : "…"}
            </td>
          </tr>
        </tbody>
      </table>
    </>
  );
}

/** What belongs to the jacket beside its coats: thicker zones, fills and webs, keys, its seam. */
function Besides({
  document,
  planning,
  mm,
}: Pick<StationProps, "document" | "planning"> & { mm: (value: number) => string }) {
  const show = useShow();
  const { zones, jacket } = document;
  const figures = planning.bundle?.figures;
  const litres = new Map<string, number>();
  for (const { kind, volumeMm3 } of figures?.report.fillParts ?? [])
    litres.set(kind, (litres.get(kind) ?? 0) + volumeMm3);
  const row = (name: string, what: string, amount: string) => (
    <tr key={name} className="quiet">
      <td className="whitespace-nowrap">{name}</td>
      <td>{what}</td>
      <td colSpan={3} />
      <td>{amount}</td>
      <td />
    </tr>
  );
  return (
    <>
      {zones.thicker.length > 0 && row(t.thicker, t.more(mm(jacket.thickerMm)), "")}
      {[...litres].map(([kind, mm3]) =>
        kind === "silicone"
          ? row(t.fills, "", figures ? show.mass(figures.takeoff.fillG) : "")
          : row(t.fillsOf(kind), "", show.volume(mm3)),
      )}
      {figures && figures.takeoff.keysG > 0 && row(t.keys, "", show.mass(figures.takeoff.keysG))}
      {jacket.seam.kind !== "none" && row(t.seam, jacket.seam.school, "")}
    </>
  );
}

/** Whose lay-up is shown below; a section that has its own is marked. */
function Whose({ laid, own }: { laid: LaidUp; own: readonly string[] }) {
  const { section, ids, choose, isOwn, change } = laid;
  if (ids.length < 2) return null;
  const number = section === null ? 0 : ids.indexOf(section) + 1;
  const button = (id: string | null, name: string) => (
    <button
      key={name}
      type="button"
      aria-pressed={section === id}
      className={`btn btn-sm join-item ${section === id ? "btn-neutral" : "border-base-300 bg-base-100"}`}
      onClick={() => choose(id)}
    >
      {name}
    </button>
  );
  return (
    <div className="mb-2 flex flex-wrap items-center gap-3">
      <fieldset className="join">
        <legend className="sr-only">{t.whose}</legend>
        {button(null, t.wholeShell)}
        {ids.map((id, k) => button(id, own.includes(id) ? `${t.section(k + 1)} *` : t.section(k + 1)))}
      </fieldset>
      {section !== null && isOwn && (
        <p className="text-sm">
          {t.ownLayup(number)}{" "}
          <button type="button" className="btn btn-xs" onClick={() => change(null)}>
            {t.asTheRest}
          </button>
        </p>
      )}
    </div>
  );
}

function inWords(warning: BuildUpWarning, show: Show): string {
  const mm = (value: number) => show.length(Math.round(10 * value) / 10);
  switch (warning.kind) {
    case "alike":
      return t.alike(...warning.coats);
    case "gauze in print coat":
      return t.gauzeInPrint;
    case "thick jacket":
      return t.thickJacket(mm(warning.mm));
    case "uneven jacket":
      return t.unevenJacket(Math.round(100 * warning.share));
    case "thick coat":
      return t.thickCoat(warning.coat, mm(warning.mm));
    case "buried face":
      return t.buriedFace(warning.name);
    case "weak edge":
      return t.weakEdge(mm(warning.mm), mm(warning.flangeMm));
    case "thick first layer":
      return t.thickFirst(warning.name, mm(warning.mm));
    case "few layers":
      return t.fewLayers(warning.layers, warning.least);
    case "span":
      return t.span(warning.section, mm(warning.mm), mm(warning.limitMm));
  }
}
