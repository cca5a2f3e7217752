import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useContext, useEffect, useRef, useState } from "react";
import { type Piece, piece as pieceSchema } from "../../contract/pieces.ts";
import { scan as scanSchema } from "../../contract/scans.ts";
import { newPlan } from "../../core/plan/document/document.ts";
import { shareOfPlan } from "../../core/plan/stages/table.ts";
import { sendJson, uploadFile } from "../lib/http.ts";
import { keys } from "../lib/queries.ts";
import { SettingsContext } from "../lib/show.ts";
import { Begun, keepFor } from "../workers/begun.ts";
import { makeDemoScan } from "../workers/demoPiece.ts";
import { type FirstGlance, freshGeometry, proxied, readySpare } from "../workers/geometry.ts";

/** The page is there and quiet by then. */
const SPARE_AFTER_MS = 300;

/** Reads a dropped scan here first, so that a bad file is refused before it is sent; then uploads it and makes its piece. */
export function useAddPiece(done: (piece: Piece) => void) {
  const client = useQueryClient();
  const { rates, fineness } = useContext(SettingsContext);
  const [progress, setProgress] = useState<{ what: string; fraction: number | null } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  /** What the scan comes to while it travels. */
  const [glance, setGlance] = useState<(FirstGlance & { readonly picture: Blob | null }) | null>(null);

  /** Is the shelf still looked at? */
  const here = useRef(true);
  useEffect(() => {
    here.current = true;
    return () => {
      here.current = false;
    };
  }, []);

  useEffect(() => {
    const timer = setTimeout(readySpare, SPARE_AFTER_MS);
    return () => clearTimeout(timer);
  }, []);

  const add = useCallback(
    async (file: File) => {
      setProblem(null);
      setProgress({ what: "Reading the scan", fraction: 0 });
      const geometry = freshGeometry();
      let handedOn = false;
      let travelling = true;
      try {
        void geometry.api.setFineness(fineness);
        const bytes = new Uint8Array(await file.arrayBuffer());
        const facts = await geometry.open(
          bytes,
          file.name,
          proxied((_stage: string, fraction: number) => setProgress({ what: "Reading the scan", fraction })),
        );
        if (!facts.ok) throw new Error(facts.message);
        const document = newPlan({ unit: facts.value.proposal.unit, up: facts.value.up });
        // First of all an answer; the scan travels while its plan is begun on.
        let looking = true;
        const look = (fraction: number) => {
          if (looking) setProgress({ what: "Taking a first look", fraction });
        };
        look(0);
        const first = await geometry.api.glance(
          geometry.ticket(),
          document,
          rates,
          proxied((stage: string, fraction: number) => look(shareOfPlan(stage, fraction))),
        );
        // Its last word may come behind the answer.
        looking = false;
        const pictured = async (seen: FirstGlance) => {
          setGlance({ ...seen, picture: null });
          const picture = await geometry.api.cover(seen.mesh).catch(() => null);
          if (travelling) setGlance({ ...seen, picture });
        };
        // Behind the picture: the worker would get to no other answer before the settled plan.
        const begun = (first.ok ? pictured(first.value) : Promise.resolve()).then(
          () => new Begun(geometry, document, { rates, fineness }),
        );
        const sent = await uploadFile(`/scans?name=${encodeURIComponent(file.name)}`, file, (fraction) =>
          setProgress({ what: "Putting it on the shelf", fraction }),
        );
        const scan = scanSchema.parse(sent);
        const name =
          file.name
            .replace(/\.[^.]+$/, "")
            .replace(/[-_]+/g, " ")
            .trim() || "New piece";
        const piece = await sendJson(
          "POST",
          "/pieces",
          { name: name.slice(0, 120), scanId: scan.id, document },
          pieceSchema,
        );
        // Whoever has gone on to something else meanwhile is not called away from it.
        if (here.current) {
          keepFor(scan.id, await begun);
          handedOn = true;
        }
        await client.invalidateQueries({ queryKey: keys.pieces });
        if (handedOn) done(piece);
      } catch (error) {
        setProblem(error instanceof Error ? error.message : "The scan could not be added.");
      } finally {
        travelling = false;
        if (!handedOn) geometry.end();
        setProgress(null);
        setGlance(null);
      }
    },
    [client, done, rates, fineness],
  );

  const addDemo = useCallback(async () => {
    setProblem(null);
    setProgress({ what: "Making the demo piece", fraction: null });
    try {
      await add(await makeDemoScan());
    } catch {
      setProblem("The demo piece could not be made in this browser. Drop a scan of your own instead.");
      setProgress(null);
    }
  }, [add]);

  return { add, addDemo, progress, problem, glance };
}
