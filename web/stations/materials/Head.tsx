/** The heads of a plain table. */
export function Head({ names }: { names: readonly string[] }) {
  return (
    <thead>
      <tr>
        {names.map((name) => (
          <th key={name} className="text-base-content">
            {name}
          </th>
        ))}
      </tr>
    </thead>
  );
}
