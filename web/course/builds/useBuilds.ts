/** What a part's plan was, and what is built from it, as the server has it. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";
import type { z } from "zod";
import { build, buildList, buildSummary, type createBuild, revisionList } from "../../../contract/builds.ts";
import { type Piece, partPath, storedPlan } from "../../../contract/pieces.ts";
import { type PlanBundle, unpackBundle } from "../../../core/plan/results/bundle.ts";
import { call, getJson, HttpProblem, sendJson } from "../../lib/http.ts";
import { keys, openPart } from "../../lib/queries.ts";

function pathOf(piece: Piece): string {
  return partPath(piece.id, openPart(piece).id);
}

/** The builds of a piece's open part, the latest first. */
export function useBuilds(piece: Piece) {
  return useQuery({
    queryKey: keys.builds(openPart(piece).id),
    queryFn: async () => (await getJson(`${pathOf(piece)}/builds`, buildList)).builds,
  });
}

/** One of them, whole. */
export function useBuild(piece: Piece | undefined, id: string | null) {
  return useQuery({
    queryKey: [...keys.builds(piece ? openPart(piece).id : ""), id],
    queryFn: () => getJson(`${pathOf(piece as Piece)}/builds/${id}`, build),
    enabled: piece !== undefined && id !== null,
    staleTime: Number.POSITIVE_INFINITY,
  });
}

export function useRevisions(piece: Piece) {
  return useQuery({
    queryKey: keys.revisions(openPart(piece).id),
    queryFn: async () => (await getJson(`${pathOf(piece)}/revisions`, revisionList)).revisions,
    staleTime: 0,
  });
}

/** The geometry that was kept with a build; null where its figures alone were kept. */
export function useBuiltGeometry(piece: Piece | undefined, id: string) {
  return useQuery({
    queryKey: [...keys.builds(piece ? openPart(piece).id : ""), id, "geometry"],
    queryFn: async (): Promise<PlanBundle | null> => {
      try {
        const response = await call(`${pathOf(piece as Piece)}/builds/${id}/result`);
        return unpackBundle(new Uint8Array(await response.arrayBuffer()));
      } catch (error) {
        if (error instanceof HttpProblem && error.code === "not-found") return null;
        throw error;
      }
    },
    enabled: piece !== undefined,
    staleTime: Number.POSITIVE_INFINITY,
  });
}

/** Reads one of them when it is asked for. */
export function useReadBuild(piece: Piece) {
  const path = pathOf(piece);
  return useCallback((id: string) => getJson(`${path}/builds/${id}`, build), [path]);
}

/** Reads the document of a revision. */
export function useReadRevision(piece: Piece) {
  const path = pathOf(piece);
  return useCallback(
    async (revision: number) => (await getJson(`${path}/revisions/${revision}`, storedPlan)).document,
    [path],
  );
}

export function useMakeBuild(piece: Piece) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (made: z.input<typeof createBuild>) => sendJson("POST", `${pathOf(piece)}/builds`, made, buildSummary),
    onSuccess: () => client.invalidateQueries({ queryKey: keys.builds(openPart(piece).id) }),
  });
}
