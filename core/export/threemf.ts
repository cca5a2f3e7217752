/** 3MF of named, coloured parts, in millimetres: a zip with one model (3MF core specification 1.3). */
import { strToU8, zipSync } from "fflate";
import type { TriangleMesh } from "../mesh/mesh.ts";

export interface ColouredPart {
  readonly name: string;
  readonly mesh: TriangleMesh;
  /** As #rrggbb. */
  readonly css: string;
}

const TYPES = `<?xml version="1.0" encoding="UTF-8"?>
<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="model" ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/></Types>`;
const RELATIONS = `<?xml version="1.0" encoding="UTF-8"?>
<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Target="/3D/3dmodel.model" Id="rel0" Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/></Relationships>`;
/** Places are written to a ten-thousandth of a millimetre. */
const DECIMALS = 4;
/** Packed quickly: the model is text, and shrinks to a fifth at any level. */
const LEVEL = 3;

export function write3mf(parts: readonly ColouredPart[]): Uint8Array {
  const materials = parts.map(({ name, css }) => `<base name="${escaped(name)}" displaycolor="${css.toUpperCase()}"/>`);
  const objects = parts.map((part, k) => objectXml(part, k));
  const items = parts.map((_, k) => `<item objectid="${k + 2}"/>`);
  const model = [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<model unit="millimeter" xml:lang="en" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02">',
    `<resources><basematerials id="1">${materials.join("")}</basematerials>`,
    ...objects,
    `</resources><build>${items.join("")}</build></model>`,
  ];
  return zipSync(
    {
      "[Content_Types].xml": strToU8(TYPES),
      "_rels/.rels": strToU8(RELATIONS),
      "3D/3dmodel.model": strToU8(model.join("\n")),
    },
    { level: LEVEL, mtime: new Date("2020-01-01T12:00:00Z") },
  );
}

function objectXml({ name, mesh: { positions: p, triangles: t } }: ColouredPart, k: number): string {
  const mm = (value: number) => String(Number(value.toFixed(DECIMALS)));
  const vertices: string[] = [];
  for (let v = 0; v < p.length; v += 3)
    vertices.push(`<vertex x="${mm(p[v])}" y="${mm(p[v + 1])}" z="${mm(p[v + 2])}"/>`);
  const triangles: string[] = [];
  for (let q = 0; q < t.length; q += 3) triangles.push(`<triangle v1="${t[q]}" v2="${t[q + 1]}" v3="${t[q + 2]}"/>`);
  return `<object id="${k + 2}" name="${escaped(name)}" type="model" pid="1" pindex="${k}"><mesh><vertices>${vertices.join("")}</vertices><triangles>${triangles.join("")}</triangles></mesh></object>`;
}

function escaped(text: string): string {
  return text.replace(/&/g, "&amp;").replace(/</g, "&lt;").replace(/"/g, "&quot;");
}
