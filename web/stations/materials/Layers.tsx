/** The layers of a lay-up, dragged into the order they are laid, each with what it takes and what may stand in for that. */
import { ArrowDown, ArrowUp, GripVertical } from "lucide-react";
import { useRef, useState } from "react";
import type { MaterialKey } from "../../../core/materials/catalogue.ts";
import { entryOf } from "../../../core/materials/catalogue.ts";
import { withMaterial } from "../../../core/plan/document/choose.ts";
import { layTerms, type PlanDocument } from "../../../core/plan/document/document.ts";
import { shellLayers, shellSystem } from "../../../core/shell/index.ts";
import type { LayerTake, ShellLayer } from "../../../core/shell/kinds/layers.ts";
import { moved } from "../../../core/shell/layup.ts";
import { layerMinorPerM2, type UnitPrices } from "../../../core/takeoff/cost.ts";
import { usePlan } from "../../document/planStore.ts";
import { useShow } from "../../lib/show.ts";
import { unitText } from "../../ui/unit.ts";
import { Head } from "./Head.tsx";
import type { LaidUp } from "./laidSection.ts";
import { MaterialSelect } from "./MaterialSelect.tsx";
import { messages } from "./messages.ts";

const t = messages.buildUp;

export function Layers({ document, laid, units }: { document: PlanDocument; laid: LaidUp; units: UnitPrices }) {
  const show = useShow();
  // What nothing was bought of yet has no price: another lay-up's is told once it is worked out.
  const costMinor = (layer: ShellLayer) => layerMinorPerM2(layer, units);
  const [dragged, setDragged] = useState<number | null>(null);
  // Known at once where it is dropped, whether or not the page was drawn again meanwhile.
  const held = useRef<number | null>(null);
  const hold = (k: number | null) => {
    held.current = k;
    setDragged(k);
  };
  const { layup, change } = laid;
  const layers = shellLayers(layup, layTerms(document));
  const ids = layers.map(({ id }) => id);
  const mm = (value: number) => show.length(Math.round(10 * value) / 10);
  const put = (from: number, to: number) => {
    const usual = shellLayers({ ...layup, order: [] }).map(({ id }) => id);
    const order = moved(ids, from, to);
    change({ ...layup, order: order.every((id, k) => id === usual[k]) ? [] : order });
  };
  const all = (of: (layer: ShellLayer) => number) => layers.reduce((sum, layer) => sum + of(layer), 0);
  return (
    <>
      <h2 className="text-lg font-semibold">
        {t.shell} <span className="quiet text-sm font-normal">{shellSystem(layup.system).name}</span>
      </h2>
      <table className="table table-sm" data-testid="layers">
        <Head names={[t.what, t.thickness, t.onFlanges, t.takes, t.weighs, t.costs, t.order]} />
        <tbody>
          {layers.map((layer, k) => (
            <tr
              key={layer.id}
              draggable
              className={dragged === k ? "opacity-50" : ""}
              onDragStart={(event) => {
                // Some browsers drag nothing that has no text.
                event.dataTransfer?.setData("text/plain", layer.name);
                hold(k);
              }}
              onDragEnd={() => hold(null)}
              onDragOver={(event) => event.preventDefault()}
              onDrop={(event) => {
                event.preventDefault();
                const from = held.current;
                if (from !== null && from !== k) put(from, k);
                hold(null);
              }}
            >
              <td className="whitespace-nowrap">
                <GripVertical aria-hidden="true" size={14} className="quiet mr-1 inline cursor-grab" />
                {layer.name}
              </td>
              <td>{mm(layer.thicknessMm)}</td>
              <td>{mm(layer.flangeThicknessMm)}</td>
              <td>
                <Takes document={document} layer={layer} />
              </td>
              <td className="whitespace-nowrap">{t.perM2(show.mass(layer.dryG))}</td>
              <td className="whitespace-nowrap">{t.perM2(show.money(costMinor(layer)))}</td>
              <td className="whitespace-nowrap">
                <Move label={t.up(layer.name)} disabled={k === 0} onClick={() => put(k, k - 1)}>
                  <ArrowUp aria-hidden="true" size={14} />
                </Move>
                <Move label={t.down(layer.name)} disabled={k === layers.length - 1} onClick={() => put(k, k + 1)}>
                  <ArrowDown aria-hidden="true" size={14} />
                </Move>
              </td>
            </tr>
          ))}
          <tr className="font-medium">
            <td>{t.inAll}</td>
            <td>{mm(all(({ thicknessMm }) => thicknessMm))}</td>
            <td>{mm(all(({ flangeThicknessMm }) => flangeThicknessMm))}</td>
            <td />
            <td className="whitespace-nowrap">{t.perM2(show.mass(all(({ dryG }) => dryG)))}</td>
            <td className="whitespace-nowrap">{t.perM2(show.money(all(costMinor)))}</td>
            <td />
          </tr>
        </tbody>
      </table>
      <p className="quiet mt-1 text-sm">
        {t.drag}{" "}
        {layup.order.length > 0 && (
          <button type="button" className="btn btn-xs" onClick={() => change({ ...layup, order: [] })}>
            {t.usualOrder}
          </button>
        )}
      </p>
    </>
  );
}

function Move({
  label,
  disabled,
  onClick,
  children,
}: {
  label: string;
  disabled: boolean;
  onClick: () => void;
  children: React.ReactNode;
}) {
  return (
    <button
      type="button"
      className="btn btn-ghost btn-xs px-1"
      aria-label={label}
      title={label}
      disabled={disabled}
      onClick={onClick}
    >
      {children}
    </button>
  );
}

/** What a square metre of a layer takes; a click on a material lets another stand in for it, in the whole plan. */
function Takes({ document, layer }: { document: PlanDocument; layer: ShellLayer }) {
  const edit = usePlan((plan) => plan.edit);
  const [open, setOpen] = useState<LayerTake["usual"] | null>(null);
  const { own } = document.materials;
  return (
    <ul>
      {layer.takes.map(({ material, usual, perM2 }) => {
        const { name, unit } = entryOf(material, own);
        const amount = `${Number(perM2.toPrecision(3))}\u2009${unitText(unit)}`;
        if (open !== usual || usual === "mixing-water")
          return (
            <li key={usual}>
              {usual === "mixing-water" ? (
                name
              ) : (
                <button
                  type="button"
                  className="link link-hover text-left"
                  title={t.takeInstead(entryOf(usual).name)}
                  onClick={() => setOpen(usual)}
                >
                  {name}
                </button>
              )}{" "}
              <span className="whitespace-nowrap">{amount}</span>
            </li>
          );
        return (
          <li key={usual}>
            <MaterialSelect
              className="select-xs w-56"
              label={t.takeInstead(entryOf(usual).name)}
              usual={usual}
              value={material}
              kept={own}
              onChoose={(id, entry) => {
                edit((plan) => withMaterial(plan, usual, (id ?? usual) as MaterialKey, entry));
                setOpen(null);
              }}
            />
          </li>
        );
      })}
    </ul>
  );
}
