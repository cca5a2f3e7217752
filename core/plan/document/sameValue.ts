/** Equal by value; the order of an object's fields says nothing. */
export function sameValue(a: unknown, b: unknown): boolean {
  if (typeof a !== "object" || typeof b !== "object" || a === null || b === null) return a === b;
  const [of, to] = [Object.entries(a), b as Readonly<Record<string, unknown>>];
  return (
    Array.isArray(a) === Array.isArray(b) &&
    of.length === Object.keys(to).length &&
    of.every(([key, value]) => key in to && sameValue(value, to[key]))
  );
}
