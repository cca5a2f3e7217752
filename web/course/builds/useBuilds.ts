/** What a part's plan was, and what is built from it, as the server has it. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";
import type { z } from "zod";
import { build, buildList, buildSummary, type createBuild, revisionList } from "../../../contract/builds.ts";
import { type Piece, partPath, storedPlan } from "../../../contract/pieces.ts";
import { getJson, sendJson } from "../../lib/http.ts";
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
export function useBuild(piece: Piece, id: string | null) {
  return useQuery({
    queryKey: [...keys.builds(openPart(piece).id), id],
    queryFn: () => getJson(`${pathOf(piece)}/builds/${id}`, build),
    enabled: id !== null,
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
