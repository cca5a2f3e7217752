import { readFile } from "node:fs/promises";
import { createRequire } from "node:module";
import { Document, Primitive, WebIO } from "@gltf-transform/core";
import { EXTMeshoptCompression, KHRDracoMeshCompression, KHRMeshQuantization } from "@gltf-transform/extensions";
import createEncoderModule from "draco3dgltf/draco_encoder_gltf_nodejs.js";
import { MeshoptDecoder, MeshoptEncoder } from "meshoptimizer";
import { beforeAll, describe, expect, it } from "vitest";
import { writeGlb } from "../../export/glb.ts";
import { box, moved, sphere } from "../../testing/shapes.ts";
import { areaAndVolume, boxSize, meshBox, type TriangleMesh } from "../mesh.ts";
import { provideDraco } from "./glbReader.ts";
import { readScan } from "./index.ts";

const { resolve } = createRequire(import.meta.url);
const installed = (name: string) => readFile(resolve(`draco3dgltf/${name}`));
const ball = sphere(500, 24);

/** A mesh of millimetres as a document in metres, as it stands: no axis is turned. */
function documentOf(mesh: TriangleMesh): Document {
  const document = new Document();
  const buffer = document.createBuffer();
  const place = Float32Array.from(mesh.positions, (mm) => mm / 1000);
  const primitive = document
    .createPrimitive()
    .setAttribute("POSITION", document.createAccessor().setType("VEC3").setArray(place).setBuffer(buffer))
    .setIndices(
      document.createAccessor().setType("SCALAR").setArray(Uint32Array.from(mesh.triangles)).setBuffer(buffer),
    );
  const node = document.createNode("body").setMesh(document.createMesh("body").addPrimitive(primitive));
  document.getRoot().setDefaultScene(document.createScene().addChild(node));
  return document;
}

async function compressor(): Promise<WebIO> {
  await Promise.all([MeshoptDecoder.ready, MeshoptEncoder.ready]);
  return new WebIO()
    .registerExtensions([KHRMeshQuantization, EXTMeshoptCompression, KHRDracoMeshCompression])
    .registerDependencies({
      "meshopt.decoder": MeshoptDecoder,
      "meshopt.encoder": MeshoptEncoder,
      "draco3d.encoder": await createEncoderModule({ wasmBinary: await installed("draco_encoder.wasm") }),
    });
}

describe("a GLB file", () => {
  beforeAll(() => provideDraco(() => installed("draco_decoder_gltf.wasm")));

  it("is in metres with Y up", async () => {
    const brick = moved(box(200, 150, 300), 5, 6, 7);
    const scan = await readScan(await writeGlb([{ name: "brick", mesh: brick, colour: [1, 1, 1, 1] }]), "a.glb");
    expect(scan).toMatchObject({ unitHint: "m", up: "y" });
    boxSize(meshBox(scan.mesh)).forEach((size, a) => {
      expect(size).toBeCloseTo([0.2, 0.3, 0.15][a], 5);
    });
  });

  it("is placed by its nodes, one within the other", async () => {
    const document = documentOf(box(100, 200, 300));
    const [inner] = document.getRoot().listNodes();
    const outer = document.createNode("outer").setScale([2, 2, 2]).setTranslation([0, 0, 5]);
    document.getRoot().getDefaultScene()?.removeChild(inner).addChild(outer);
    outer.addChild(inner.setRotation([0, Math.SQRT1_2, 0, Math.SQRT1_2]).setTranslation([1, 0, 0]));
    const { mesh } = await readScan(await new WebIO().writeBinary(document), "a.glb");
    const { min, max } = meshBox(mesh);
    boxSize({ min, max }).forEach((size, a) => {
      expect(size).toBeCloseTo([0.6, 0.4, 0.2][a], 5);
    });
  });

  it("may string its triangles together as a strip or a fan", async () => {
    // A strip and a fan of the same four corners: a square of 1 m2.
    for (const [mode, order] of [
      [Primitive.Mode.TRIANGLE_STRIP, [0, 1, 3, 2]],
      [Primitive.Mode.TRIANGLE_FAN, [0, 1, 2, 3]],
    ] as const) {
      const document = documentOf({
        positions: Float32Array.of(0, 0, 0, 1000, 0, 0, 1000, 1000, 0, 0, 1000, 0),
        triangles: Uint32Array.from(order),
      });
      document.getRoot().listMeshes()[0].listPrimitives()[0].setMode(mode);
      const { mesh } = await readScan(await new WebIO().writeBinary(document), "a.glb");
      expect(areaAndVolume(mesh).areaMm2).toBeCloseTo(1, 6);
      // Both triangles face the same way: their halves do not cancel out.
      const { positions: p, triangles: t } = mesh;
      const turned = [0, 3].map((k) => {
        const [a, b, c] = [0, 1, 2].map((n) => [p[3 * t[k + n]], p[3 * t[k + n] + 1]]);
        return Math.sign((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]));
      });
      expect(turned).toEqual([1, 1]);
    }
  });

  const compressions: [string, (document: Document) => void][] = [
    ["meshopt", (document) => document.createExtension(EXTMeshoptCompression).setRequired(true)],
    [
      "Draco",
      (document) =>
        document
          .createExtension(KHRDracoMeshCompression)
          .setRequired(true)
          .setEncoderOptions({ quantizationBits: { POSITION: 16 } }),
    ],
  ];
  it.each(compressions)("compressed by %s is the same body", async (_, compress) => {
    const document = documentOf(ball);
    compress(document);
    const bytes = await (await compressor()).writeBinary(document);
    const { mesh } = await readScan(bytes, "a.glb");
    expect(mesh.triangles.length).toBe(ball.triangles.length);
    expect((areaAndVolume(mesh).volumeMm3 * 1e9) / areaAndVolume(ball).volumeMm3).toBeCloseTo(1, 4);
  });

  it("in whole numbers is placed by the node that scales them", async () => {
    const document = documentOf(ball);
    document.createExtension(KHRMeshQuantization).setRequired(true);
    const [node] = document.getRoot().listNodes();
    const place = node.getMesh()?.listPrimitives()[0].getAttribute("POSITION");
    place?.setArray(Int16Array.from(ball.positions, (mm) => Math.round((mm / 500) * 32767))).setNormalized(true);
    node.setScale([0.5, 0.5, 0.5]);
    const { mesh } = await readScan(await (await compressor()).writeBinary(document), "a.glb");
    expect((areaAndVolume(mesh).volumeMm3 * 1e9) / areaAndVolume(ball).volumeMm3).toBeCloseTo(1, 3);
  });

  describe("is refused in one plain sentence", () => {
    const bytesOf = async (change: (json: Record<string, unknown>) => void) => {
      const { json, resources } = await new WebIO().writeJSON(documentOf(ball), { basename: "a" });
      change(json as unknown as Record<string, unknown>);
      const [bin] = Object.values(resources);
      const text = new TextEncoder().encode(JSON.stringify({ ...json, buffers: [{ byteLength: bin.length }] }));
      const padded = new Uint8Array(4 * Math.ceil(text.length / 4)).fill(32);
      padded.set(text);
      const out = new Uint8Array(28 + padded.length + bin.length);
      const view = new DataView(out.buffer);
      const words = [0x46546c67, 2, out.length, padded.length, 0x4e4f534a];
      words.forEach((word, k) => {
        view.setUint32(4 * k, word, true);
      });
      out.set(padded, 20);
      view.setUint32(20 + padded.length, bin.length, true);
      view.setUint32(24 + padded.length, 0x004e4942, true);
      out.set(bin, 28 + padded.length);
      return out;
    };
    const codeOf = async (bytes: Uint8Array) =>
      readScan(bytes, "a.glb").then(
        ({ mesh }) => `${mesh.triangles.length / 3} triangles`,
        (error: { code?: string }) => error.code,
      );

    it("but not as it stands", async () => {
      expect(await codeOf(await bytesOf(() => {}))).toBe(`${ball.triangles.length / 3} triangles`);
    });

    it("where it is cut off", async () => {
      expect(await codeOf((await bytesOf(() => {})).slice(0, 900))).toBe("truncated");
    });

    it("where it needs what cannot be read", async () => {
      const needs = await bytesOf((json) => {
        json.extensionsRequired = ["ACME_points_of_light"];
      });
      expect(await codeOf(needs)).toBe("unsupported");
    });

    it("where it promises more than it holds", async () => {
      const lies = await bytesOf((json) => {
        for (const accessor of json.accessors as { count: number }[]) accessor.count *= 1000;
      });
      expect(await codeOf(lies)).toBe("count-lies");
    });

    it("where its description is no description", async () => {
      const bytes = await bytesOf(() => {});
      bytes.set([123, 123, 123], 20);
      expect(await codeOf(bytes)).toBe("malformed");
    });
  });

  it("with pictures that are not there is read all the same", async () => {
    const document = documentOf(ball);
    const material = document.createMaterial("skin");
    document.getRoot().listMeshes()[0].listPrimitives()[0].setMaterial(material);
    const { mesh } = await readScan(await new WebIO().writeBinary(document), "a.glb");
    expect(mesh.triangles.length).toBe(ball.triangles.length);
  });
});
