/** The heads of a plain table. */
/** @param right how many of the last stand to the right, over figures */
export function Head({ names, right = 0 }: { names: readonly string[]; right?: number }) {
  return (
    <thead>
      <tr>
        {names.map((name, k) => (
          <th key={name} className={`text-base-content ${k >= names.length - right ? "text-right" : ""}`}>
            {name}
          </th>
        ))}
      </tr>
    </thead>
  );
}
