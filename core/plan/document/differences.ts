/** What differs between two plans, in sentences: for whoever reopens or compares revisions and builds. */
import type { CastingSettings } from "../../casting/settings.ts";
import type { BoltHold, FlangeSettings } from "../../flange/settings.ts";
import type { FootSettings } from "../../foot/settings.ts";
import { jacketThicknessMm } from "../../jacket/coat.ts";
import type { JacketKeySettings } from "../../keys/settings.ts";
import { type MaterialId, nameOf } from "../../materials/catalogue.ts";
import type { ChosenMaterials } from "../../materials/chosen.ts";
import type { MixingSettings } from "../../materials/mixing.ts";
import type { RibSettings } from "../../ribs/settings.ts";
import type { Layup } from "../../shell/layup.ts";
import { DAB_FIGURES } from "../../survey/zones.ts";
import type { PlanDocument } from "./document.ts";
import { sameValue } from "./sameValue.ts";

/** How figures are told. */
export interface LengthWords {
  length(mm: number): string;
  area(mm2: number): string;
}

/** @returns a sentence for each difference; none where the plans are built alike */
export function differences(before: PlanDocument, after: PlanDocument, words: LengthWords): string[] {
  return [
    ...inSeat(before.seat, after.seat),
    ...inBrief(before.brief, after.brief, words),
    ...inSurvey(before, after),
    ...inJacket(before, after, words),
    ...inParting(before.parting, after.parting, words),
    ...inShell(before, after),
    ...inMaterials(before.materials, after.materials),
    ...inFlanges(before.shell.flanges, after.shell.flanges, words),
    ...inCasting(before.shell.casting, after.shell.casting),
    ...inJacketKeys(before.shell.jacketKeys, after.shell.jacketKeys, words),
    ...inRibs(before.shell.ribs, after.shell.ribs, words),
    ...changed(
      "What must not touch",
      before.touching.answers,
      after.touching.answers,
      (all: readonly unknown[]) => `${all.length} answered`,
    ),
    ...inMixing(before.mixing, after.mixing),
    ...inFoot(before.shell.foot, after.shell.foot, words),
  ];
}

/** Are two plans built alike, whatever their ids and the rates they were suggested at? */
export function builtAlike(a: PlanDocument, b: PlanDocument): boolean {
  const plain = ({
    identity: _identity,
    parting: { suggestedAt: _suggestedAt, ...parting },
    ...rest
  }: PlanDocument) => ({
    ...rest,
    parting,
  });
  return sameValue(plain(a), plain(b));
}

/** "What: this instead of that", where the two differ. */
function changed(what: string, before: unknown, after: unknown, tell: (value: never) => string = String): string[] {
  if (sameValue(before, after)) return [];
  return [`${what}: ${tell(after as never)} instead of ${tell(before as never)}`];
}

const yesNo = (value: boolean) => (value ? "yes" : "no");

function inSeat(before: PlanDocument["seat"], after: PlanDocument["seat"]): string[] {
  return [
    ...changed("Unit of the scan", before.unit, after.unit),
    ...changed("Tape check", before.tapeScale, after.tapeScale, (scale: number) => `× ${scale.toFixed(4)}`),
    ...changed("Upright axis", before.up, after.up),
    ...changed("Turned", before.turnDeg, after.turnDeg, (degrees: number) => `${degrees}°`),
    ...changed("Stands on a board", before.onBoard, after.onBoard, yesNo),
  ];
}

function inBrief(before: PlanDocument["brief"], after: PlanDocument["brief"], words: LengthWords): string[] {
  return [
    ...changed("Casts", before.edition, after.edition),
    ...changed("Cast in", before.castMaterial, after.castMaterial),
    ...changed("Cast method", before.castMethod, after.castMethod),
    ...changed("The piece is of", before.surface, after.surface),
    ...changed("Lift limit", before.liftLimitKg, after.liftLimitKg, (kg: number) => `${kg} kg`),
    ...changed("Largest section", before.handlingMm, after.handlingMm, words.length),
    ...changed("The piece cannot be moved", before.immovable, after.immovable, yesNo),
  ];
}

function inSurvey(before: PlanDocument, after: PlanDocument): string[] {
  const dabs = (zone: readonly number[]) => {
    const count = zone.length / DAB_FIGURES;
    return count === 0 ? "nothing painted" : `${count} ${count === 1 ? "dab" : "dabs"} painted`;
  };
  // The same number of dabs in other places.
  const inZone = (what: string, a: readonly number[], b: readonly number[]) =>
    a.length === b.length && !sameValue(a, b) ? [`${what}: painted elsewhere`] : changed(what, a, b, dabs);
  const { survey: a, zones: from } = before;
  const { survey: b, zones: to } = after;
  return [
    ...(sameValue(a.pull, b.pull) ? [] : ["Surveyed along another pull"]),
    ...changed("Draft", a.draftDeg, b.draftDeg, (degrees: number) => `${degrees}°`),
    ...changed("Decided", a.dismissed, b.dismissed, (done: readonly unknown[]) => `${done.length} places`),
    ...inZone("Lines keep clear", from.keepClear, to.keepClear),
    ...inZone("Fragile", from.fragile, to.fragile),
    ...inZone("Thicker jacket", from.thicker, to.thicker),
  ];
}

function inJacket(
  { jacket: before, materials: had }: PlanDocument,
  { jacket: after, materials: has }: PlanDocument,
  { length }: LengthWords,
): string[] {
  const own = [...had.own, ...has.own];
  const silicone = (id: string | null) => (id === null ? "as the jacket" : nameOf(id, own));
  const was = new Map(before.coats.map((coat, k) => [coat.id, { ...coat, number: k + 1 }]));
  const coats = after.coats.flatMap((coat, k) => {
    const held = was.get(coat.id);
    if (!held) return [`Coat ${k + 1} is new: ${length(coat.thicknessMm)}`];
    return [
      ...changed(`Coat ${k + 1}`, held.thicknessMm, coat.thicknessMm, length),
      ...changed(`Coat ${k + 1} thickened`, held.thickened, coat.thickened, yesNo),
      ...changed(`Coat ${k + 1} of`, held.silicone, coat.silicone, silicone),
      ...changed(`Gauze in coat ${k + 1}`, held.gauze, coat.gauze, yesNo),
      ...changed(`Pigment of coat ${k + 1}`, held.pigment, coat.pigment),
      ...changed(`Coat ${k + 1} stands as coat`, held.number, k + 1),
    ];
  });
  const gone = before.coats.filter(({ id }) => !after.coats.some((coat) => coat.id === id));
  const seam = ({ kind, school, points }: PlanDocument["jacket"]["seam"]) =>
    kind === "none" ? "none" : `${kind}, ${school}, ${points.length / 3} points`;
  const stops = (closed: PlanDocument["jacket"]["stops"]) => `${closed.length} closed`;
  return [
    ...changed("Silicone", before.silicone, after.silicone, silicone),
    ...changed("Jacket", jacketThicknessMm(before.coats), jacketThicknessMm(after.coats), length),
    ...coats,
    ...gone.map(({ thicknessMm }) => `A coat of ${length(thicknessMm)} is gone`),
    ...changed("Smoothing", before.smoothingMm, after.smoothingMm, length),
    ...changed("Rim", before.rimWidthMm, after.rimWidthMm, length),
    ...changed("Thicker zones by", before.thickerMm, after.thickerMm, length),
    ...changed("Seam of the jacket", before.seam, after.seam, seam),
    ...changed("Foot clay up to", before.footClayMm, after.footClayMm, length),
    ...changed("Through-holes", before.stops, after.stops, stops),
  ];
}

function inParting(before: PlanDocument["parting"], after: PlanDocument["parting"], words: LengthWords): string[] {
  const lines = ({ layout, pulls }: PlanDocument["parting"]) =>
    layout
      ? `laid by hand, ${layout.sections.length} sections`
      : pulls
        ? `for ${pulls.length} chosen pulls`
        : "suggested";
  const moved = (["layout", "pulls"] as const).some((key) => !sameValue(before[key], after[key]));
  const own = (value: number | null) => (value === null ? "by the jacket's thickness" : words.length(value));
  const by = (count: PlanDocument["parting"]["sections"]) => (count === "auto" ? "as is cheapest" : String(count));
  const kinds = (fills: PlanDocument["parting"]["fills"]) => `${fills.length} chosen by hand`;
  return [
    ...changed("Sections", before.sections, after.sections, by),
    ...(lines(before) === lines(after) && moved
      ? ["Lines or pulls were moved"]
      : changed("Lines", lines(before), lines(after))),
    ...changed("The rubber gives", before.giveMm, after.giveMm, own),
    ...changed("Thickest silicone fill", before.mostSiliconeMm, after.mostSiliconeMm, words.length),
    ...changed("Smallest section", before.leastSectionMm2, after.leastSectionMm2, words.area),
    ...(before.fills.length === after.fills.length && !sameValue(before.fills, after.fills)
      ? ["Fills are made of something else"]
      : changed("Fills", before.fills, after.fills, kinds)),
  ];
}

function inShell({ shell: before }: PlanDocument, { shell: after }: PlanDocument): string[] {
  const had = new Map(before.sections.map((layup) => [layup.section, layup]));
  const has = new Map(after.sections.map((layup) => [layup.section, layup]));
  const sections = [...new Set([...had.keys(), ...has.keys()])];
  return [
    ...inLayup("Shell", before, after),
    // Sections are told by their ids, which are not for people.
    ...(sections.every((id) => sameValue(had.get(id), has.get(id))) ? [] : ["Single sections are laid up otherwise"]),
    ...changed("Lay-ups kept to compare", before.variants, after.variants, (all: readonly unknown[]) =>
      String(all.length),
    ),
  ];
}

function inLayup(what: string, before: Layup, after: Layup): string[] {
  const keys = [...new Set([...Object.keys(before.figures), ...Object.keys(after.figures)])];
  const figure = (value: number | undefined) => (value === undefined ? "as is typical" : String(value));
  return [
    ...changed(what, before.system, after.system),
    ...keys.flatMap((key) =>
      changed(`${what}, ${key}`, before.figures[key] ?? null, after.figures[key] ?? null, (value: number | null) =>
        figure(value ?? undefined),
      ),
    ),
    ...(sameValue(before.order, after.order) ? [] : [`${what}: its layers are in another order`]),
  ];
}

function inMaterials(before: ChosenMaterials, after: ChosenMaterials): string[] {
  const own = [...before.own, ...after.own];
  const usual = [...new Set([...Object.keys(before.instead), ...Object.keys(after.instead)])] as MaterialId[];
  const told = usual.flatMap((id) =>
    changed(`In place of ${nameOf(id)}`, before.instead[id] ?? null, after.instead[id] ?? null, (key: string | null) =>
      key === null ? "nothing" : nameOf(key, own),
    ),
  );
  return told.length > 0 || sameValue(before.own, after.own) ? told : ["Figures of own materials have changed"];
}

function inFlanges(before: FlangeSettings, after: FlangeSettings, { length }: LengthWords): string[] {
  const off = (mm: number | null) => (mm === null ? "by the shell's thickness" : length(mm));
  const holds = { drilled: "through both flanges", inserts: "in inserts laid in" };
  const kinds = { dimples: "dimples", groove: "a groove", none: "none" };
  return [
    ...changed("Flanges", before.widthMm, after.widthMm, off),
    ...changed("Bolts", before.bolts.diameterMm, after.bolts.diameterMm, length),
    ...changed("Bolts off the jacket", before.bolts.offMm, after.bolts.offMm, off),
    ...changed("Bolts hold", before.bolts.hold, after.bolts.hold, (hold: BoltHold) => holds[hold]),
    ...changed("Bolts apart", before.bolts.pitchMm, after.bolts.pitchMm, length),
    ...changed("Flange keys", before.keys.kind, after.keys.kind, (kind: FlangeSettings["keys"]["kind"]) => kinds[kind]),
    ...changed("Radius of flange keys", before.keys.radiusMm, after.keys.radiusMm, length),
    ...changed("Flange keys apart", before.keys.pitchMm, after.keys.pitchMm, length),
    ...(sameValue(before.walls, after.walls) ? [] : ["Single walls were decided otherwise"]),
  ];
}

function inCasting(before: CastingSettings, after: CastingSettings): string[] {
  const positions = { "foot-up": "foot up", "as-it-stands": "as it stands" };
  const density = (value: number | null) => (value === null ? "by what is cast" : `${value} g/cm³`);
  return [
    ...changed(
      "Filled",
      before.position,
      after.position,
      (position: CastingSettings["position"]) => positions[position],
    ),
    ...changed("How full", before.fillShare, after.fillShare, (share: number) => `${Math.round(100 * share)} %`),
    ...changed("Density of the cast", before.densityGPerCm3, after.densityGPerCm3, density),
    ...changed("Load of a bolt", before.boltLoadN, after.boltLoadN, (n: number) => `${n} N`),
    ...changed("Load of a strap", before.strapLoadN, after.strapLoadN, (n: number) => `${n} N`),
  ];
}

function inRibs(before: RibSettings, after: RibSettings, { length }: LengthWords): string[] {
  const span = (mm: number | null) => (mm === null ? "by the shell's strength" : length(mm));
  return [
    ...changed("Ribs or poles", before.kind, after.kind),
    ...changed("Poles of", before.pole, after.pole),
    ...changed("Thickness of poles, or height of the ribs' cores", before.poleMm, after.poleMm, length),
    ...changed("Widest span", before.spanMm, after.spanMm, span),
  ];
}

function inJacketKeys(before: JacketKeySettings, after: JacketKeySettings, { length }: LengthWords): string[] {
  return [
    ...changed("Keys on the jacket", before.kind, after.kind),
    ...changed("Radius of jacket keys", before.radiusMm, after.radiusMm, length),
    ...changed("Height of jacket keys", before.heightMm, after.heightMm, length),
    ...changed("Taper of jacket keys", before.taperDeg, after.taperDeg, (degrees: number) => `${degrees}°`),
    ...changed("Jacket keys apart", before.spacingMm, after.spacingMm, length),
    ...(sameValue(before.placed, after.placed)
      ? []
      : [after.placed ? "Jacket keys set by hand" : "Jacket keys placed by rule"]),
  ];
}

function inFoot(before: FootSettings, after: FootSettings, { length }: LengthWords): string[] {
  return [
    ...changed("Foot along the board", before.isFlanged, after.isFlanged, yesNo),
    ...changed("Foot beyond the rim", before.beyondMm, after.beyondMm, length),
    ...changed("Bolted to the board", before.isBolted, after.isBolted, yesNo),
    ...changed("Bolts of the foot apart", before.pitchMm, after.pitchMm, length),
    ...changed("Pour hole", before.pourHoleMm, after.pourHoleMm, length),
  ];
}

function inMixing(before: MixingSettings, after: MixingSettings): string[] {
  return [
    ...changed("Expected at the bench", before.temperatureC, after.temperatureC, (c: number) => `${c} °C`),
    ...changed("People who lay it", before.people, after.people),
    ...changed("Pace", before.pace, after.pace, (times: number) => `${times} × the usual`),
    ...changed("Bucket", before.vesselMl, after.vesselMl, (ml: number) => `${ml} ml`),
    ...changed("Step of the scale", before.scaleStepG, after.scaleStepG, (g: number) => `${g} g`),
    ...changed("Scale bears", before.scaleMostG, after.scaleMostG, (g: number) => `${g} g`),
  ];
}
