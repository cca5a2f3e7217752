import type { SiliconeKey } from "../../../core/materials/catalogue.ts";
import { CAUTIONS, type CautionId, DEFERENCE } from "../../../core/materials/cautions.ts";
import { EMPTY_STORE } from "../../../core/materials/stock.ts";
import { withSilicone } from "../../../core/plan/document/choose.ts";
import { layTerms, layupsInUse } from "../../../core/plan/document/document.ts";
import { planCautions } from "../../../core/plan/results/cautions.ts";
import { shellSystem, shellSystems, typicalLayup } from "../../../core/shell/index.ts";
import { areMeasured, type Fixings } from "../../../core/takeoff/fixings.ts";
import type { Takeoff } from "../../../core/takeoff/takeoff.ts";
import { sectionMassWorking, thicknessWorking } from "../../../core/takeoff/workings.ts";
import { usePlan } from "../../document/planStore.ts";
import { useStore } from "../../lib/queries.ts";
import { useShow } from "../../lib/show.ts";
import { useShown } from "../../scene/useShown.ts";
import { Figure } from "../../ui/Figure.tsx";
import { Caution, More, NumberField, Part } from "../../ui/fields.tsx";
import type { StationProps } from "../station.ts";
import { AtTheBench } from "./AtTheBench.tsx";
import { useLaidUp } from "./laidSection.ts";
import { MaterialSelect } from "./MaterialSelect.tsx";
import { messages } from "./messages.ts";
import { Papers } from "./Papers.tsx";
import { StoreContext } from "./storeHeld.ts";

export function MaterialsStation(props: StationProps) {
  const { document, planning } = props;
  const show = useShow();
  const edit = usePlan((plan) => plan.edit);
  const { bundle } = planning;
  useShown(bundle, document.seat.onBoard, { piece: "hidden", sections: true });
  const { data } = useStore();
  const { section, ids, layup, change } = useLaidUp(document, planning);
  const system = shellSystem(layup.system);
  const takeoff = bundle?.figures.takeoff;
  const setFigure = (key: string, value: number) => change({ ...layup, figures: { ...layup.figures, [key]: value } });
  const cautionIds = new Set<CautionId>([
    ...layupsInUse(document).flatMap((each) => shellSystem(each.system).cautions),
    "thickener-dust",
    "silicone-cure",
  ]);
  return (
    <>
      <Part title={messages.sheet.silicone}>
        <StoreContext value={data?.store ?? EMPTY_STORE}>
          <MaterialSelect
            className="w-full"
            label={messages.sheet.silicone}
            usual="tin-brushable-low"
            value={document.jacket.silicone}
            kept={document.materials.own}
            onChoose={(id, entry) => edit((plan) => withSilicone(plan, null, id as SiliconeKey, entry))}
          />
        </StoreContext>
      </Part>
      <AtTheBench document={document} />
      <Part
        title={messages.sheet.shellSystem}
        aside={
          section !== null && <span className="font-medium">{messages.sheet.section(ids.indexOf(section) + 1)}</span>
        }
      >
        {shellSystems.map((candidate) => (
          <label
            key={candidate.id}
            className={`mb-1 flex cursor-pointer gap-3 border-l-4 px-3 py-2 ${candidate.id === system.id ? "border-accent bg-base-200" : "border-base-300"}`}
          >
            <input
              type="radio"
              name="shell"
              className="radio radio-sm mt-1"
              checked={candidate.id === system.id}
              onChange={() => change(typicalLayup(candidate.id))}
            />
            <span>
              <span className="block font-medium">{candidate.name}</span>
              <span className="quiet block text-sm">{candidate.summary}</span>
            </span>
          </label>
        ))}
        <More title={messages.sheet.layersAndFigures}>
          {system.parameters.map((parameter) => (
            <NumberField
              key={`${section} ${system.id}.${parameter.key}`}
              label={parameter.label}
              unit={parameter.unit}
              value={layup.figures[parameter.key] ?? parameter.value}
              least={parameter.least}
              most={parameter.most}
              step={parameter.step}
              onChange={(value) => setFigure(parameter.key, value)}
            />
          ))}
          <p className="quiet text-xs">{messages.sheet.figuresAre(system.parameters[0].source)}</p>
        </More>
      </Part>
      {takeoff && bundle && (
        <>
          <Part title={messages.sheet.shell}>
            <Figure label={messages.sheet.thickness} working={thicknessWorking(document.shell, layTerms(document))}>
              {show.length(takeoff.thicknessMm)}
            </Figure>
            {takeoff.sectionMassesG.map((mass, k) => (
              <Figure
                // biome-ignore lint/suspicious/noArrayIndexKey: sections are told apart by their number.
                key={k}
                label={messages.sheet.section(k + 1)}
                {...massWorking(takeoff, k, planning.fixings)}
              >
                {show.mass(mass)}
              </Figure>
            ))}
            <Figure label={messages.sheet.hoursOfHands} working={takeoff.handsWorking}>
              {show.hours(takeoff.handsMin)}
            </Figure>
            <Figure label={messages.sheet.cost} working={takeoff.costWorking}>
              {show.money(takeoff.costMinor)}
            </Figure>
          </Part>
          <Part title={messages.sheet.takeCare}>
            {planCautions(bundle.figures, document, show).map((text) => (
              <Caution key={text}>{text}</Caution>
            ))}
            {[...cautionIds]
              .filter((id) => id !== "lifting")
              .map((id) => (
                <Caution key={id}>{CAUTIONS[id]}</Caution>
              ))}
            <p className="quiet mt-2 text-sm">{DEFERENCE}</p>
          </Part>
        </>
      )}
      <Papers {...props} />
    </>
  );
}

/** How the mass of a section comes about; nothing for a plan that was built from before this was kept. */
function massWorking({ sectionsLaid }: Pick<Takeoff, "sectionsLaid">, section: number, fixings: Fixings | undefined) {
  const laid = sectionsLaid[section];
  return laid ? { working: sectionMassWorking(laid, areMeasured(sectionsLaid, fixings)) } : {};
}
