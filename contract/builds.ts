/** Plans that are built from: frozen as they stood on a day, whatever prices, defaults or the program do later. */
import { z } from "zod";
import { planFigures } from "./figures.ts";
import { planDocument } from "./plan.ts";
import { rates } from "./rates.ts";
import { resultKey } from "./scans.ts";

const name = z.string().trim().min(1, "Give it a name, such as the date or the client.").max(120);

/** A catalogue entry as it stood: what a material is and how it is counted. */
const catalogueEntry = z.object({ name: z.string(), unit: z.string() });

/** What is kept with a build beside its document. */
const frozen = {
  document: planDocument,
  rates,
  figures: planFigures,
  /** The catalogue's entries that the figures speak of, by their ids. */
  catalogue: z.record(z.string(), catalogueEntry),
};

/** What is asked of whoever builds from a plan. */
export const buildName = z.object({ name });

export const createBuild = buildName.extend({
  /** The plan's revision it is made from: it must be saved as it stands. */
  revision: z.number().int().min(1),
  /** Of the settled result, so that its geometry is kept with it. */
  resultKey,
  rates,
  figures: planFigures,
  catalogue: z.record(z.string(), catalogueEntry),
});

export const buildSummary = z.object({
  id: z.uuid(),
  name: z.string(),
  revision: z.number().int(),
  madeAt: z.iso.datetime(),
  madeBy: z.object({ id: z.uuid(), name: z.string() }).nullable(),
});
export type BuildSummary = z.infer<typeof buildSummary>;

export const build = buildSummary.extend(frozen);
export type Build = z.infer<typeof build>;

export const buildList = z.object({ builds: z.array(buildSummary) });

/** An earlier state of a plan. */
export const revisionSummary = z.object({
  revision: z.number().int(),
  savedAt: z.iso.datetime(),
  savedBy: z.object({ id: z.uuid(), name: z.string() }).nullable(),
});
export const revisionList = z.object({ revisions: z.array(revisionSummary) });
export type RevisionSummary = z.infer<typeof revisionSummary>;
