/** Data sheets and photos of one material: kept, opened, taken away. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { X } from "lucide-react";
import { useState } from "react";
import { SHEET_LIMIT_BYTES, SHEET_TYPES, type Sheet, sheet, sheetList } from "../../contract/sheets.ts";
import { call, getJson, uploadFile } from "../lib/http.ts";
import { keys } from "../lib/queries.ts";
import { messages } from "./messages.ts";

const t = messages.sheets;

const useSheets = () => useQuery({ queryKey: keys.sheets, queryFn: () => getJson("/store/sheets", sheetList) });

export function Sheets({ material }: { material: string }) {
  const { data } = useSheets();
  const client = useQueryClient();
  const [problem, setProblem] = useState<string | null>(null);
  const after = {
    onSuccess: () => client.invalidateQueries({ queryKey: keys.sheets }),
    onError: (error: Error) => setProblem(error.message),
  };
  const add = useMutation({
    mutationFn: async (file: File): Promise<Sheet> => {
      if (file.size > SHEET_LIMIT_BYTES) throw new Error(t.tooLarge(file.name, SHEET_LIMIT_BYTES / 1024 ** 2));
      const query = new URLSearchParams({ material, name: file.name.slice(-160) });
      return sheet.parse(await uploadFile(`/store/sheets?${query}`, file, () => undefined));
    },
    ...after,
  });
  const remove = useMutation({
    mutationFn: (id: string) => call(`/store/sheets/${id}`, { method: "DELETE" }),
    ...after,
  });
  const own = (data?.sheets ?? []).filter((each) => each.material === material);
  return (
    <div className="text-sm" data-testid="sheets">
      <p className="quiet">{t.title}</p>
      <ul>
        {own.map(({ id, name, type, bytes }) => (
          <li key={id} className="flex items-center gap-2">
            <a className="link" href={`/api/store/sheets/${id}`} download={name}>
              {name}
            </a>
            <span className="quiet text-xs">{t.size(SHEET_TYPES[type], Math.max(1, Math.round(bytes / 1024)))}</span>
            <button
              type="button"
              className="btn btn-ghost btn-xs px-1"
              aria-label={t.remove(name)}
              onClick={() => remove.mutate(id)}
            >
              <X aria-hidden="true" size={14} />
            </button>
          </li>
        ))}
      </ul>
      <label className="btn btn-xs mt-1">
        {add.isPending ? t.keeping : t.add}
        <input
          type="file"
          className="sr-only"
          accept={Object.keys(SHEET_TYPES).join(",")}
          onChange={(event) => {
            const [file] = event.target.files ?? [];
            setProblem(null);
            if (file) add.mutate(file);
            event.target.value = "";
          }}
        />
      </label>
      {problem && (
        <p role="alert" className="mt-1 border-l-4 border-error px-2">
          {problem}
        </p>
      )}
    </div>
  );
}
