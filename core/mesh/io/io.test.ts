import { strToU8, zipSync } from "fflate";
import { describe, expect, it } from "vitest";
import { writeStl } from "../../export/stl.ts";
import { newPlan } from "../../plan/document/document.ts";
import { seatPiece } from "../../plan/stages/seat.ts";
import { box, sphere } from "../../testing/shapes.ts";
import { areaAndVolume, boxSize, meshBox, type TriangleMesh } from "../mesh.ts";
import { ScanProblem, type ScanProblemCode } from "../problem.ts";
import { repairScan } from "../repair.ts";
import { readScan } from "./index.ts";

const brick = box(200, 150, 300);
const corners = (mesh: TriangleMesh) =>
  Array.from({ length: mesh.positions.length / 3 }, (_, k) => [...mesh.positions.subarray(3 * k, 3 * k + 3)]);
const faces = (mesh: TriangleMesh) =>
  Array.from({ length: mesh.triangles.length / 3 }, (_, k) => [...mesh.triangles.subarray(3 * k, 3 * k + 3)]);

function asciiStl(mesh: TriangleMesh): string {
  const v = corners(mesh);
  return `solid brick\n${faces(mesh)
    .map(
      (f) =>
        `facet normal 0 0 0\nouter loop\n${f.map((k) => `vertex ${v[k].map((x) => x.toExponential(6)).join(" ")}`).join("\n")}\nendloop\nendfacet`,
    )
    .join("\n")}\nendsolid brick\n`;
}

function objText(mesh: TriangleMesh): string {
  return `# a brick\no brick\n${corners(mesh)
    .map((p) => `v ${p.join(" ")}`)
    .join("\n")}\nvn 0 0 1\n${faces(mesh)
    .map((f) => `f ${f.map((k) => `${k + 1}//1`).join(" ")}`)
    .join("\n")}\n`;
}

function plyHead(format: string, mesh: TriangleMesh): string {
  return `ply\nformat ${format} 1.0\ncomment made for a test\nelement vertex ${mesh.positions.length / 3}\nproperty float x\nproperty float y\nproperty float z\nproperty uchar red\nelement face ${mesh.triangles.length / 3}\nproperty list uchar int vertex_indices\nend_header\n`;
}

function plyBinary(mesh: TriangleMesh, little: boolean): Uint8Array {
  const head = strToU8(plyHead(little ? "binary_little_endian" : "binary_big_endian", mesh));
  const body = new DataView(new ArrayBuffer((mesh.positions.length / 3) * 13 + (mesh.triangles.length / 3) * 13));
  let at = 0;
  for (const p of corners(mesh)) {
    for (const x of p) {
      body.setFloat32(at, x, little);
      at += 4;
    }
    body.setUint8(at++, 255);
  }
  for (const f of faces(mesh)) {
    body.setUint8(at++, 3);
    for (const k of f) {
      body.setInt32(at, k, little);
      at += 4;
    }
  }
  return new Uint8Array([...head, ...new Uint8Array(body.buffer)]);
}

function threemf(mesh: TriangleMesh, unit = "millimeter"): Uint8Array {
  const xml = `<?xml version="1.0"?><model unit="${unit}" xmlns="x"><resources><object id="1" type="model"><mesh><vertices>${corners(
    mesh,
  )
    .map(([x, y, z]) => `<vertex x="${x}" y="${y}" z="${z}"/>`)
    .join("")}</vertices><triangles>${faces(mesh)
    .map(([a, b, c]) => `<triangle v1="${a}" v2="${b}" v3="${c}"/>`)
    .join(
      "",
    )}</triangles></mesh></object></resources><build><item objectid="1" transform="1 0 0 0 1 0 0 0 1 5 6 7"/></build></model>`;
  return zipSync({ "3D/3dmodel.model": strToU8(xml), "[Content_Types].xml": strToU8("<Types/>") });
}

describe("intake reads what was written", () => {
  const files: [string, string, Uint8Array][] = [
    ["STL, binary", "a.stl", writeStl(brick)],
    ["STL, ASCII", "a.stl", strToU8(asciiStl(brick))],
    ["OBJ", "a.obj", strToU8(objText(brick))],
    [
      "PLY, ASCII",
      "a.ply",
      strToU8(
        `${
          plyHead("ascii", brick) +
          corners(brick)
            .map((p) => `${p.join(" ")} 255`)
            .join("\n")
        }\n${faces(brick)
          .map((f) => `3 ${f.join(" ")}`)
          .join("\n")}\n`,
      ),
    ],
    ["PLY, little-endian", "a.ply", plyBinary(brick, true)],
    ["PLY, big-endian", "a.ply", plyBinary(brick, false)],
    ["3MF", "a.3mf", threemf(brick)],
  ];
  for (const [name, file, bytes] of files) {
    it(name, async () => {
      const { mesh, report } = repairScan((await readScan(bytes, file)).mesh);
      expect(report).toMatchObject({ triangles: 12, openEdges: 0, nonManifoldEdges: 0, parts: 1 });
      expect(areaAndVolume(mesh).volumeMm3).toBeCloseTo(9_000_000, -1);
      boxSize(meshBox(mesh)).forEach((size, a) => {
        expect(size).toBeCloseTo([200, 150, 300][a], 3);
      });
    });
  }

  it("3MF keeps its unit and its transform", async () => {
    const scan = await readScan(threemf(brick, "inch"), "a.3mf");
    expect(scan.unitHint).toBe("in");
    expect(meshBox(scan.mesh).min).toEqual([-95, -69, -143]);
  });

  it("the content decides, whatever the ending", async () => {
    expect((await readScan(strToU8(objText(brick)), "renamed.stl")).mesh.triangles.length).toBe(36);
  });
});

describe("intake refuses in one plain sentence", () => {
  const stlOf = (change: (view: DataView) => void) => {
    const bytes = writeStl(sphere(50, 8));
    change(new DataView(bytes.buffer));
    return bytes;
  };
  const bomb = zipSync({ "3D/3dmodel.model": new Uint8Array(80_000_000) }, { level: 9 });
  const cubeXml = `<mesh><vertices>${corners(brick)
    .map(([x, y, z]) => `<vertex x="${x}" y="${y}" z="${z}"/>`)
    .join("")}</vertices><triangles>${faces(brick)
    .map(([a, b, c]) => `<triangle v1="${a}" v2="${b}" v3="${c}"/>`)
    .join("")}</triangles></mesh>`;
  /** Objects each of which holds the one before it twice; the first holds `inmost`. */
  const nested = (levels: number, inmost: string) => {
    const twice = (k: number) => `<component objectid="${k}"/><component objectid="${k}"/>`;
    const objects = Array.from(
      { length: levels },
      (_, k) => `<object id="${k + 1}"><components>${twice(k)}</components></object>`,
    );
    const xml = `<model><resources><object id="0">${inmost}</object>${objects.join("")}</resources><build><item objectid="${levels}"/></build></model>`;
    return zipSync({ "3D/3dmodel.model": strToU8(xml) });
  };
  const cases: [string, string, Uint8Array, ScanProblemCode][] = [
    ["an empty file", "a.stl", new Uint8Array(0), "empty-file"],
    ["text renamed .stl", "a.stl", strToU8("Dear workshop, here is the scan you asked for. ".repeat(20)), "truncated"],
    ["a truncated binary", "a.stl", writeStl(sphere(50, 8)).slice(0, 2000), "truncated"],
    [
      "a triangle count that lies upwards",
      "a.stl",
      stlOf((view) => view.setUint32(80, 4_000_000_000, true)),
      "truncated",
    ],
    ["a triangle count that lies downwards", "a.stl", stlOf((view) => view.setUint32(80, 3, true)), "count-lies"],
    [
      "coordinates that are no numbers",
      "a.stl",
      stlOf((view) => view.setFloat32(96, Number.NaN, true)),
      "bad-coordinate",
    ],
    ["coordinates of 1e38", "a.stl", stlOf((view) => view.setFloat32(96, 1e38, true)), "bad-coordinate"],
    ["a swollen 3MF", "a.3mf", bomb, "too-large"],
    ["a 3MF of 2^32 parts within parts", "a.3mf", nested(32, ""), "too-large"],
    ["a 3MF of 2^22 cubes within parts", "a.3mf", nested(22, cubeXml), "too-large"],
    ["a zip that is no 3MF", "a.3mf", zipSync({ "letter.txt": strToU8("hello") }), "malformed"],
    ["an ASCII STL with no triangles", "a.stl", strToU8("solid nothing\nendsolid nothing\n"), "no-triangles"],
    ["an OBJ face beyond its vertices", "a.obj", strToU8("v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 9\n"), "malformed"],
    [
      "a PLY that promises too much",
      "a.ply",
      strToU8(plyHead("ascii", brick).replace("element vertex 8", "element vertex 99999999")),
      "count-lies",
    ],
    ["garbage", "a.obj", Uint8Array.from({ length: 200_000 }, (_, k) => (k * 7919) & 255), "unknown-format"],
  ];
  for (const [name, file, bytes, code] of cases) {
    it(name, async () => {
      const problem = await readScan(bytes, file).then(
        () => null,
        (error: unknown) => error,
      );
      expect(problem).toBeInstanceOf(ScanProblem);
      expect(problem).toMatchObject({ code });
    });
  }

  it("a flat sheet", () => {
    const sheet = { positions: Float32Array.of(0, 0, 0, 100, 0, 0, 0, 100, 0), triangles: Uint32Array.of(0, 1, 2) };
    expect(() => repairScan(sheet)).toThrow(expect.objectContaining({ code: "flat" }));
  });
});

describe("a surveyor's coordinates", () => {
  it("keep their tenths of a millimetre, in metres, half the way to the pole", async () => {
    const ball = sphere(0.6, 24);
    const [east, north] = [512_345.678, 5_412_987.123];
    const lines: string[] = [];
    for (let v = 0; v < ball.positions.length; v += 3) {
      const [x, y, z] = ball.positions.subarray(v, v + 3);
      lines.push(`v ${(x + east).toFixed(6)} ${(y + north).toFixed(6)} ${(z + 211).toFixed(6)}`);
    }
    for (let k = 0; k < ball.triangles.length; k += 3)
      lines.push(`f ${[...ball.triangles.subarray(k, k + 3)].map((v) => v + 1).join(" ")}`);
    const { mesh } = await readScan(new TextEncoder().encode(lines.join("\n")), "tower.obj");
    expect(mesh.positions.length).toBe(ball.positions.length);
    const [read, made] = [areaAndVolume(mesh), areaAndVolume(ball)];
    expect(read.volumeMm3 / made.volumeMm3).toBeCloseTo(1, 5);
    const seated = seatPiece(mesh, { ...newPlan().seat, unit: "m", onBoard: false });
    expect(Math.max(...seated.positions.map(Math.abs))).toBeLessThan(2000);
    expect(areaAndVolume(seated).volumeMm3 / (made.volumeMm3 * 1e9)).toBeCloseTo(1, 4);
  });
});
