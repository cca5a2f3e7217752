import { useContext } from "react";
import { drillMap } from "../../../../core/flange/drillMap.ts";
import {
  type BoltHold,
  FLANGE_WIDTHS_MM,
  type FlangeKeyKind,
  JOINTS,
  type Joint,
  KEY_KINDS,
} from "../../../../core/flange/settings.ts";
import type { BuiltWall } from "../../../../core/plan/builtWalls.ts";
import { blocksUnder } from "../../../../core/walls/blocks.ts";
import { SettingsContext, useShow } from "../../../lib/show.ts";
import { Figure } from "../../../ui/Figure.tsx";
import { Caution, Choice, More, Part } from "../../../ui/fields.tsx";
import { LengthField } from "../../../ui/LengthField.tsx";
import { messages } from "../messages.ts";
import { usePicked } from "../picked.ts";
import { useFlangeEdits } from "../useWalls.ts";

/** The picked wall: its width, what holds it, and its drill map. */
export function WallCard({ walls, onBoard, hold }: { walls: readonly BuiltWall[]; onBoard: boolean; hold: BoltHold }) {
  const show = useShow();
  const { wall: number, adding, add } = usePicked();
  const { choose } = useFlangeEdits();
  const { rates } = useContext(SettingsContext);
  const built = number === null ? undefined : walls[number - 1];
  if (!built || number === null)
    return walls.length > 0 ? <p className="quiet px-5 pt-3 text-sm">{messages.wall.pick}</p> : null;
  const { id, wall, pattern, along, fastenings, choice } = built;
  const [a, b] = wall.sections;
  const blocks = onBoard ? blocksUnder(wall, 0) : [];
  const t = messages.wall;
  const joint = choice?.joint ?? "bolts";
  const lean = Math.max(0, ...Array.from(along.ground.leanDeg, Math.abs));
  return (
    <Part title={t.title(number, messages.board.between(a, b))}>
      <Figure label={t.length}>{show.length(pattern.lengthMm)}</Figure>
      <Figure label={t.building}>{t.minutes(Math.round((pattern.lengthMm / 1000) * rates.wallMinPerM))}</Figure>
      <Figure label={t.holds}>
        {[fastenings.bolts.length, fastenings.dimples.length + fastenings.grooves.length, fastenings.slots.length].join(
          ", ",
        )}
      </Figure>
      {lean >= 0.5 && <Figure label={t.lean}>{Math.round(lean)}°</Figure>}
      {wall.narrowed.length > 0 && (
        <Figure label={t.narrowed}>
          {t.narrow(
            show.length(Math.min(...wall.narrowed.map(({ widthMm }) => widthMm))),
            show.length(wall.narrowed.reduce((sum, { lengthMm }) => sum + lengthMm, 0)),
          )}
        </Figure>
      )}
      {blocks.length > 0 && (
        <Figure label={t.blocks}>{blocks.map(({ heightMm }) => show.length(Math.round(heightMm))).join(", ")}</Figure>
      )}
      {id && (
        <>
          <LengthField
            label={t.width}
            valueMm={wall.wantedMm}
            leastMm={FLANGE_WIDTHS_MM.least}
            mostMm={FLANGE_WIDTHS_MM.most}
            onChange={(widthMm) => choose(id, { widthMm })}
          />
          {choice?.widthMm != null && (
            <button type="button" className="btn btn-xs" onClick={() => choose(id, { widthMm: null })}>
              {t.asAll}
            </button>
          )}
          <Choice<Joint>
            label={t.joint}
            value={joint}
            options={JOINTS.map((value) => ({ value, name: t.joints[value] }))}
            onChange={(value) => choose(id, { joint: value })}
          />
          <Choice<FlangeKeyKind | "all">
            label={t.keys}
            value={choice?.keys ?? "all"}
            options={[
              { value: "all", name: t.asAllKeys },
              ...KEY_KINDS.map((value) => ({ value, name: messages.flanges.kinds[value] })),
            ]}
            onChange={(keys) => choose(id, { keys: keys === "all" ? null : keys })}
          />
          {joint === "bolts" && (
            <div className="mt-1 flex flex-wrap items-center gap-2">
              <button
                type="button"
                aria-pressed={adding}
                className={`btn btn-xs ${adding ? "btn-neutral" : ""}`}
                onClick={() => add(!adding)}
              >
                {adding ? t.addingBolt : t.addBolt}
              </button>
              {choice?.bolts && (
                <button type="button" className="btn btn-xs" onClick={() => choose(id, { bolts: null })}>
                  {t.byRule}
                </button>
              )}
            </div>
          )}
        </>
      )}
      {joint === "bolts" &&
        fastenings.unbolted.map(({ fromMm, toMm }) => (
          <Caution key={fromMm}>{t.unbolted(show.length(toMm - fromMm))}</Caution>
        ))}
      {fastenings.bolts.length > 0 && <DrillMap built={built} hold={hold} />}
    </Part>
  );
}

function DrillMap({ built: { along, fastenings, pattern }, hold }: { built: BuiltWall; hold: BoltHold }) {
  const show = useShow();
  const t = messages.wall;
  const start = !pattern.ends
    ? t.start.own
    : pattern.ends[0] === "board"
      ? t.start.board
      : t.start.junction(pattern.ends[0]);
  return (
    <More title={t.drillMap}>
      <p className="quiet text-xs">
        {t.from(start)} {t.mark}
      </p>
      <table className="table table-xs">
        <thead>
          <tr>
            {[t.bolt, t.alongJacket, t.alongEdge, t.offJacket, t.how].map((name) => (
              <th key={name} className="text-base-content">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {drillMap(along, fastenings, hold).map(({ bolt, alongMm, outerMm, offMm, aslant, strap, insertIn }) => (
            <tr key={bolt}>
              <td>{bolt}</td>
              <td className="whitespace-nowrap">{show.length(Math.round(alongMm))}</td>
              <td className="whitespace-nowrap">{show.length(Math.round(outerMm))}</td>
              <td className="whitespace-nowrap">{show.length(Math.round(offMm))}</td>
              <td>
                {strap ? t.strap : aslant ? t.aslant(Math.round(aslant.deg), aslant.section) : t.square}
                {insertIn !== null && `, ${t.insert(insertIn)}`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </More>
  );
}
