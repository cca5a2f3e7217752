import { chosen } from "../../../../core/flange/settings.ts";
import type { BuiltWall } from "../../../../core/plan/builtWalls.ts";
import type { PlanDocument } from "../../../../core/plan/document/document.ts";
import type { Clash } from "../../../../core/solids/asBuilt.ts";
import type { LostBolt, Relief } from "../../../../core/solids/relief.ts";
import { saveFile } from "../../../lib/saveFile.ts";
import { useShow } from "../../../lib/show.ts";
import { madeFrom, solidsFor, useSolids } from "../../../planning/solids.ts";
import type { Planning } from "../../../planning/usePlanning.ts";
import { useStage } from "../../../scene/useStage.tsx";
import { Caution, Part } from "../../../ui/fields.tsx";
import type { BuiltSection } from "../../../workers/geometry.ts";
import { bodiesAs3mf, bodiesAsGlb, bodyAsStl } from "../../../workers/print.ts";
import { messages } from "../messages.ts";
import { boltsOf, useFlangeEdits } from "../useWalls.ts";

const t = messages.solids;

/** The sections as bodies: worked out when somebody asks, for it takes its time. */
export function SolidSections({
  planning,
  document,
  pieceName,
  walls: built,
}: {
  planning: Planning;
  document: PlanDocument;
  walls: readonly BuiltWall[];
  pieceName: string;
}) {
  const { made, busy, problem, set } = useSolids();
  const walls = planning.bundle?.walls;
  // One section has no walls, and is a body all the same.
  if (!walls || (walls.length === 0 && planning.bundle?.skins.length !== 1)) return null;
  const from = madeFrom(walls, document.shell);
  const solids = solidsFor(made, from);
  const work = async () => {
    set({ busy: true, problem: null });
    const answer = await planning.solids();
    if (answer.ok) set({ busy: false, made: { from, solids: answer.value } });
    else set({ busy: false, problem: answer.cancelled ? t.stopped : answer.message });
  };
  return (
    <Part title={t.title}>
      {solids ? (
        <>
          <SolidTable sections={solids.sections} pieceName={pieceName} />
          <AsBuilt sections={solids.sections.length} clashes={solids.clashes} reliefs={solids.reliefs} walls={built} />
        </>
      ) : (
        <>
          <p className="quiet text-sm">{made ? t.outOfDate : t.what}</p>
          <button
            type="button"
            className="btn btn-sm btn-neutral mt-2"
            disabled={busy || planning.quality !== "settled"}
            onClick={() => void work()}
          >
            {busy ? t.working : made ? t.again : t.work}
          </button>
        </>
      )}
      {problem && <Caution>{problem}</Caution>}
    </Part>
  );
}

/** Less than this is told as a spot, mm2. */
const SPOT_MM2 = 100;

/** A shell that stays thinner than this is told as none, mm. */
const LEAST_TOLD_MM = 1;

/** Do they leave as they are built? What is laid thinner for it, and what runs into another section, is told with its place. */
function AsBuilt({
  sections,
  clashes,
  reliefs,
  walls,
}: {
  sections: number;
  clashes: readonly Clash[];
  reliefs: readonly Relief[];
  walls: readonly BuiltWall[];
}) {
  const show = useShow();
  const { stage } = useStage();
  if (sections < 2) return null;
  const spread = (areaMm2: number) => (areaMm2 < SPOT_MM2 ? t.spot : show.area(areaMm2));
  const look = (at: readonly [number, number, number]) => (
    <button type="button" className="btn btn-xs" onClick={() => stage?.comeTo([...at])}>
      {t.lookThere}
    </button>
  );
  return (
    <>
      {clashes.length === 0 && <p className="mt-2 text-sm">{t.allPass}</p>}
      {reliefs.length > 0 && (
        <>
          <p className="mt-2 text-sm">{t.reliefs}</p>
          <ul className="mt-1 space-y-1 text-sm" data-testid="reliefs">
            {reliefs.map(({ section, other, biteMm, areaMm2, leftMm, at, bolts }) => (
              <li key={`${section} ${other} ${at}`}>
                {t.relief(
                  section,
                  other,
                  spread(areaMm2),
                  show.length(biteMm),
                  leftMm === null ? null : leftMm < LEAST_TOLD_MM ? t.toNothing : t.stays(show.length(leftMm)),
                )}{" "}
                {look(at)}
                {bolts.length > 0 && <LostBolts bolts={bolts} walls={walls} />}
              </li>
            ))}
          </ul>
        </>
      )}
      {clashes.map(({ section, other, biteMm, movedMm, areaMm2, at }) => (
        <Caution key={`clash ${section} ${other}`}>
          {t.clash(section, other, spread(areaMm2), show.length(biteMm), show.length(Math.round(movedMm)))} {t.thin}{" "}
          {look(at)}
        </Caution>
      ))}
    </>
  );
}

/** Bolts whose hold is left out, and a button that takes them off their walls. */
function LostBolts({ bolts, walls }: { bolts: readonly LostBolt[]; walls: readonly BuiltWall[] }) {
  const show = useShow();
  const { set } = useFlangeEdits();
  const places = bolts.map(({ wall, alongMm }) => t.boltAt(show.length(Math.round(alongMm)), wall)).join(", ");
  const take = () =>
    set((flanges) =>
      [...new Set(bolts.map(({ wall }) => wall))].reduce((changed, number) => {
        const gone = bolts.filter(({ wall }) => wall === number).map(({ alongMm }) => alongMm);
        const id = walls[number - 1]?.id;
        const left = boltsOf(walls, number)?.filter(({ alongMm }) => !gone.includes(alongMm));
        return id && left ? chosen(changed, id, { bolts: left }) : changed;
      }, flanges),
    );
  return (
    <span className="block text-warning">
      {t.lostBolts(bolts.length, places)}{" "}
      <button type="button" className="btn btn-xs" onClick={take}>
        {t.takeBolts(bolts.length)}
      </button>
    </span>
  );
}

function SolidTable({ sections, pieceName }: { sections: readonly BuiltSection[]; pieceName: string }) {
  const show = useShow();
  const name = pieceName.replace(/[^\w-]+/g, "-").toLowerCase();
  const save = async (bytes: Promise<Uint8Array | null>, file: string) => {
    const content = await bytes;
    if (content) saveFile(file, content, "application/octet-stream");
  };
  return (
    <div data-testid="solids">
      <table className="table table-xs">
        <thead>
          <tr>
            {[t.section, t.dry, t.wet, t.size, t.lift].map((head) => (
              <th key={head} className="px-1 text-base-content">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {sections.map(({ number, massDryG, massWetG, sizeMm, lift }) => (
            <tr key={number}>
              <td className="px-1">
                <button
                  type="button"
                  className="link"
                  title={t.stlOf(number)}
                  onClick={() => void save(bodyAsStl(sections[number - 1]), `${name}-section-${number}.stl`)}
                >
                  {number}
                </button>
              </td>
              <td className="px-1 whitespace-nowrap">{show.mass(massDryG)}</td>
              <td className="px-1 whitespace-nowrap">{show.mass(massWetG)}</td>
              <td className="px-1">{sizeMm.map((mm) => show.length(Math.round(mm))).join(" × ")}</td>
              <td className={`px-1 ${lift === "one" ? "" : "text-warning"}`}>{t.lifts[lift]}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {sections
        .filter(({ pieces }) => pieces > 1)
        .map(({ number, pieces }) => (
          <Caution key={number}>{t.apart(number, pieces)}</Caution>
        ))}
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <button type="button" className="btn btn-xs" onClick={() => void save(bodiesAs3mf(sections), `${name}.3mf`)}>
          {t.threemf}
        </button>
        <button type="button" className="btn btn-xs" onClick={() => void save(bodiesAsGlb(sections), `${name}.glb`)}>
          {t.glb}
        </button>
        <span className="quiet text-xs">{t.stlHint}</span>
      </div>
    </div>
  );
}
