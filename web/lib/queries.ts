/** What the server holds, by key. */
import { QueryClient, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import type { z } from "zod";
import { type changePiece, piece, pieceList, storedPlan } from "../../contract/pieces.ts";
import { type Settings, session, settings } from "../../contract/settings.ts";
import { getJson, HttpProblem, sendJson } from "./http.ts";

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
  pieces: ["pieces"] as const,
  piece: (id: string) => ["pieces", id] as const,
  plan: (id: string) => ["pieces", id, "plan"] as const,
};

export const useSession = () => useQuery({ queryKey: keys.session, queryFn: () => getJson("/session", session) });
export const usePieces = () => useQuery({ queryKey: keys.pieces, queryFn: () => getJson("/pieces", pieceList) });
export const usePiece = (id: string) =>
  useQuery({ queryKey: keys.piece(id), queryFn: () => getJson(`/pieces/${id}`, piece) });
export const useStoredPlan = (id: string) =>
  useQuery({
    queryKey: keys.plan(id),
    queryFn: () => getJson(`/pieces/${id}/plan`, storedPlan),
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

export function useSaveSettings() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (next: Settings) => sendJson("PUT", "/session/settings", next, settings),
    onSuccess: () => client.invalidateQueries({ queryKey: keys.session }),
  });
}
