/** Pigments of the sections, told apart in normal, deutan and protan sight, neighbours contrasting most. */
export const SECTION_PIGMENTS = [
  { name: "wine", css: "#743655", figure: "light" },
  { name: "rust", css: "#A95900", figure: "light" },
  { name: "iris", css: "#645EB6", figure: "light" },
  { name: "verdigris", css: "#5F918E", figure: "dark" },
  { name: "ochre", css: "#C59826", figure: "dark" },
  { name: "lavender", css: "#9E97F4", figure: "dark" },
  { name: "lichen", css: "#CCDB7A", figure: "dark" },
  { name: "ice", css: "#5AE6FF", figure: "dark" },
] as const;

/** Linear rgb of a CSS hex colour (IEC 61966-2-1). */
export function linearRgb(css: string): [number, number, number] {
  return [1, 3, 5].map((at) => {
    const c = Number.parseInt(css.slice(at, at + 2), 16) / 255;
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
  }) as [number, number, number];
}
