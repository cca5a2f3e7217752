/** The formulas as they are kept beside the code, read for people: what is worked out, and how. */
import source from "../../docs/formulas.md?raw";

export interface Formula {
  readonly what: string;
  readonly how: string;
}

/** Rows of the table; code marks and the files they stand in are for whoever reads the code. */
export function readFormulas(text: string): Formula[] {
  return text
    .split("\n")
    .filter((line) => line.startsWith("| ") && !line.startsWith("| what |"))
    .map((line) => {
      const [what, how] = line.slice(2).split(/ \| /);
      return { what: what.trim(), how: (how ?? "").replaceAll("`", "").trim() };
    })
    .filter(({ how }) => how !== "");
}

export const FORMULAS: readonly Formula[] = readFormulas(source);
