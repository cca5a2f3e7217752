/** What jacket and shell are built up of: coats and layers in the order they are laid, and what speaks against them. */
import { useContext } from "react";
import { jacketThicknessMm } from "../../../core/jacket/coat.ts";
import { entryOf } from "../../../core/materials/catalogue.ts";
import { spanFor } from "../../../core/plan/stages/ribs.ts";
import { shellLayers, shellSystem } from "../../../core/shell/index.ts";
import type { LayerTake } from "../../../core/shell/kinds/layers.ts";
import { type BuildUpWarning, buildUpWarnings } from "../../../core/takeoff/buildUp.ts";
import { coatMinor, layerMinorPerM2 } from "../../../core/takeoff/buying.ts";
import { type Show, useShow } from "../../lib/show.ts";
import { Caution } from "../../ui/fields.tsx";
import { unitText } from "../../ui/unit.ts";
import type { StationProps } from "../station.ts";
import { messages } from "./messages.ts";
import { StoreContext } from "./storeHeld.ts";

const t = messages.buildUp;

export function BuildUp({ document, planning }: StationProps) {
  const show = useShow();
  const { coats, silicone } = document.jacket;
  const { system, figures } = document.shell;
  const report = planning.bundle?.figures.report;
  const layers = shellLayers(system, figures);
  const spans = report && { widestMm: report.spans.widestMm, limitMm: spanFor(document.shell) };
  const warnings = buildUpWarnings(document, spans ?? null);
  const mm = (value: number) => show.length(Math.round(10 * value) / 10);
  const store = useContext(StoreContext);
  const coatCosts = (massG: number) => show.money(coatMinor(store, silicone, massG));
  return (
    <>
      {warnings.map((warning) => (
        <Caution key={JSON.stringify(warning)}>{inWords(warning, show)}</Caution>
      ))}
      <h2 className="mt-3 text-lg font-semibold">
        {t.jacket} <span className="quiet text-sm font-normal">{entryOf(silicone).name}</span>
      </h2>
      <table className="table table-sm mb-6" data-testid="coats">
        <Head names={[t.what, t.thickness, t.thickened, t.weighs, t.costs]} />
        <tbody>
          {coats.map((coat, k) => (
            <tr key={coat.id}>
              <td>
                <span className="mr-2 inline-block h-3.5 w-3.5 align-middle" style={{ background: coat.pigment }} />
                {t.coat(k + 1)}
              </td>
              <td>{mm(coat.thicknessMm)}</td>
              <td>{coat.thickened ? t.yes : t.no}</td>
              <td>{report?.jacket.coats[k] ? show.mass(report.jacket.coats[k].massG) : "…"}</td>
              <td>{report?.jacket.coats[k] ? coatCosts(report.jacket.coats[k].massG) : "…"}</td>
            </tr>
          ))}
          <tr className="font-medium">
            <td>{t.inAll}</td>
            <td>{mm(jacketThicknessMm(coats))}</td>
            <td />
            <td>{report ? show.mass(report.jacket.siliconeG) : "…"}</td>
            <td>{report ? coatCosts(report.jacket.siliconeG) : "…"}</td>
          </tr>
        </tbody>
      </table>
      <h2 className="text-lg font-semibold">
        {t.shell} <span className="quiet text-sm font-normal">{shellSystem(system).name}</span>
      </h2>
      <table className="table table-sm" data-testid="layers">
        <Head names={[t.what, t.thickness, t.onFlanges, t.takes, t.weighs, t.costs]} />
        <tbody>
          {layers.map((layer) => (
            <tr key={layer.name}>
              <td>{layer.name}</td>
              <td>{mm(layer.thicknessMm)}</td>
              <td>{mm(layer.flangeThicknessMm)}</td>
              <td>{layer.takes.map(takeText).join(", ")}</td>
              <td className="whitespace-nowrap">{t.perM2(show.mass(layer.dryG))}</td>
              <td className="whitespace-nowrap">{t.perM2(show.money(layerMinorPerM2(store, layer)))}</td>
            </tr>
          ))}
          <tr className="font-medium">
            <td>{t.inAll}</td>
            <td>{mm(layers.reduce((sum, { thicknessMm }) => sum + thicknessMm, 0))}</td>
            <td>{mm(layers.reduce((sum, { flangeThicknessMm }) => sum + flangeThicknessMm, 0))}</td>
            <td />
            <td className="whitespace-nowrap">{t.perM2(show.mass(layers.reduce((sum, { dryG }) => sum + dryG, 0)))}</td>
            <td className="whitespace-nowrap">
              {t.perM2(show.money(layers.reduce((sum, layer) => sum + layerMinorPerM2(store, layer), 0)))}
            </td>
          </tr>
        </tbody>
      </table>
      <p className="quiet mt-2 text-sm">{t.edges}</p>
    </>
  );
}

function Head({ names }: { names: readonly string[] }) {
  return (
    <thead>
      <tr>
        {names.map((name) => (
          <th key={name} className="text-base-content">
            {name}
          </th>
        ))}
      </tr>
    </thead>
  );
}

/** A square metre's worth of a material. */
function takeText({ material, perM2 }: LayerTake): string {
  const { name, unit } = entryOf(material);
  return `${name} ${Number(perM2.toPrecision(3))}\u2009${unitText(unit)}`;
}

function inWords(warning: BuildUpWarning, show: Show): string {
  const mm = (value: number) => show.length(Math.round(10 * value) / 10);
  switch (warning.kind) {
    case "alike":
      return t.alike(...warning.coats);
    case "thick jacket":
      return t.thickJacket(mm(warning.mm));
    case "thick coat":
      return t.thickCoat(warning.coat, mm(warning.mm));
    case "thick first layer":
      return t.thickFirst(warning.name, mm(warning.mm));
    case "few layers":
      return t.fewLayers(warning.layers, warning.least);
    case "span":
      return t.span(warning.section, mm(warning.mm), mm(warning.limitMm));
  }
}
