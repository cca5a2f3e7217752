/** What the server holds, by key. */
import { QueryClient, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import type { z } from "zod";
import {
  type changePiece,
  type Part,
  type Piece,
  partPath,
  piece,
  pieceList,
  storedPlan,
} from "../../contract/pieces.ts";
import { type Settings, session, settings } from "../../contract/settings.ts";
import { type StoredStore, storedStore } from "../../contract/store.ts";
import { getJson, HttpProblem, sendJson } from "./http.ts";
import { saveUnderWay } from "./saves.ts";

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 10_000,
      retry: (count, error) => count < 3 && error instanceof HttpProblem && error.code === "offline",
    },
  },
});

export const keys = {
  session: ["session"] as const,
  store: ["store"] as const,
  sheets: ["sheets"] as const,
  pieces: ["pieces"] as const,
  piece: (id: string) => ["pieces", id] as const,
  plan: (partId: string) => ["parts", partId, "plan"] as const,
  builds: (partId: string) => ["parts", partId, "builds"] as const,
  revisions: (partId: string) => ["parts", partId, "revisions"] as const,
};

export const useSession = () => useQuery({ queryKey: keys.session, queryFn: () => getJson("/session", session) });
export const usePieces = () => useQuery({ queryKey: keys.pieces, queryFn: () => getJson("/pieces", pieceList) });
export const usePiece = (id: string) =>
  useQuery({ queryKey: keys.piece(id), queryFn: () => getJson(`/pieces/${id}`, piece) });
/** The part of a piece that is open: pieces have one for now. */
export const openPart = ({ parts }: Piece): Part => parts[0];
export const useStoredPlan = (piece: Piece | undefined) =>
  useQuery({
    queryKey: keys.plan(piece ? openPart(piece).id : ""),
    queryFn: async () => {
      const part = piece && openPart(piece);
      if (!part) throw new Error("No piece is open.");
      await saveUnderWay(part.id);
      return getJson(`${partPath(piece.id, part.id)}/plan`, storedPlan);
    },
    enabled: piece !== undefined,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
  });

export function useChangePiece() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ id, change }: { id: string; change: z.infer<typeof changePiece> }) =>
      sendJson("PATCH", `/pieces/${id}`, change, piece),
    onSuccess: () => client.invalidateQueries({ queryKey: keys.pieces }),
  });
}

export function useDuplicatePiece() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (id: string) => sendJson("POST", `/pieces/${id}/duplicate`, {}, piece),
    onSuccess: () => client.invalidateQueries({ queryKey: keys.pieces }),
  });
}

export const useStore = () => useQuery({ queryKey: keys.store, queryFn: () => getJson("/store", storedStore) });

/** Writes the store on the revision it was read at; where somebody else wrote meanwhile, theirs is fetched and told. */
export function useSaveStore() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (next: StoredStore) => sendJson("PUT", "/store", next, storedStore),
    onSuccess: (saved) => client.setQueryData(keys.store, saved),
    onError: () => client.invalidateQueries({ queryKey: keys.store }),
  });
}

export function useSaveSettings() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (next: Settings) => sendJson("PUT", "/session/settings", next, settings),
    onSuccess: () => client.invalidateQueries({ queryKey: keys.session }),
  });
}
