/** What things look like on the stage: plaster, rubber, marker, and the raking lamp. */
import * as THREE from "three";
import { SECTION_PIGMENTS } from "../../core/display/palette.ts";
import { FILL_KINDS, type FillKind } from "../../core/release/fills.ts";

export const plaster = () =>
  new THREE.MeshStandardMaterial({ color: "#d8cfbd", roughness: 0.92, metalness: 0, side: THREE.DoubleSide });
export const clay = () =>
  new THREE.MeshStandardMaterial({ color: "#93745c", roughness: 0.95, metalness: 0, side: THREE.DoubleSide });
export const vertexPainted = () =>
  new THREE.MeshStandardMaterial({ vertexColors: true, roughness: 0.9, side: THREE.DoubleSide });
/** How fills are hatched by what they are made of: silicone is plain. */
export const HATCHES: Readonly<Record<FillKind, "plain" | "slant" | "cross" | "dots">> = {
  silicone: "plain",
  clay: "slant",
  web: "cross",
  plug: "dots",
};
const HATCH_NUMBER = { plain: 0, slant: 1, cross: 2, dots: 3 } as const;
/** Lines of a hatching are so far apart, mm. */
const HATCH_MM = 14;

/** Tells `hatched` what the fill at every vertex is made of. */
export function hatch(geometry: THREE.BufferGeometry, fillMm: Float32Array, kinds: Uint32Array): void {
  const numbers = Float32Array.from(kinds, (kind, v) =>
    fillMm[v] > 0 ? HATCH_NUMBER[HATCHES[FILL_KINDS[kind]]] : HATCH_NUMBER.plain,
  );
  geometry.setAttribute("hatch", new THREE.BufferAttribute(numbers, 1));
}

/** Painted by vertex, and hatched by what lies there. */
export function hatched(): THREE.MeshStandardMaterial {
  const material = vertexPainted();
  material.onBeforeCompile = (shader) => {
    shader.vertexShader = shader.vertexShader
      .replace(
        "#include <common>",
        "#include <common>\nattribute float hatch;\nvarying float vHatch;\nvarying vec3 vPlace;",
      )
      .replace("#include <begin_vertex>", "#include <begin_vertex>\nvHatch = hatch;\nvPlace = position;");
    shader.fragmentShader = shader.fragmentShader
      .replace(
        "#include <common>",
        `#include <common>
        varying float vHatch;
        varying vec3 vPlace;
        float inked(float along) {
          float line = abs(fract(along / ${HATCH_MM.toFixed(1)}) - 0.5) * 2.0;
          float soft = max(fwidth(along) / ${HATCH_MM.toFixed(1)} * 2.0, 0.02);
          return smoothstep(0.72 - soft, 0.72 + soft, line);
        }`,
      )
      .replace(
        "#include <color_fragment>",
        `#include <color_fragment>
        float rising = inked(vPlace.z + vPlace.x + vPlace.y);
        float falling = inked(vPlace.z - vPlace.x - vPlace.y);
        float ink = vHatch > 2.5 ? rising * falling : vHatch > 1.5 ? max(rising, falling) : vHatch > 0.5 ? rising : 0.0;
        diffuseColor.rgb = mix(diffuseColor.rgb, vec3(0.03, 0.04, 0.05), 0.75 * ink);`,
      );
  };
  return material;
}

export const rubber = () =>
  new THREE.MeshStandardMaterial({
    color: "#8fb0c4",
    roughness: 0.55,
    transparent: true,
    opacity: 0.92,
    side: THREE.DoubleSide,
    // Sections lie on it: what is theirs is seen.
    polygonOffset: true,
    polygonOffsetFactor: 1.5,
    polygonOffsetUnits: 2,
  });
export const marker = () => new THREE.MeshStandardMaterial({ color: "#16305c", roughness: 0.6 });
export const paper = (map: THREE.Texture) => new THREE.SpriteMaterial({ map, depthTest: false, transparent: true });
export const openLock = () =>
  new THREE.MeshBasicMaterial({ color: "#ff4a12", depthTest: false, transparent: true, opacity: 0.85 });
export const filledLock = () => new THREE.MeshBasicMaterial({ color: "#f3dfae" });
export const pickDot = () => new THREE.MeshBasicMaterial({ color: "#b3401f" });
export const pickedWall = () =>
  new THREE.MeshBasicMaterial({ color: "#b3401f", side: THREE.DoubleSide, transparent: true, opacity: 0.85 });
export const steel = () => new THREE.MeshStandardMaterial({ color: "#4b5660", roughness: 0.45, metalness: 0.5 });
export const wanting = () => new THREE.MeshStandardMaterial({ color: "#ff4a12", emissive: "#b3401f", roughness: 0.5 });
export const tape = () => new THREE.LineBasicMaterial({ color: "#b3401f", depthTest: false });
/** A little light of its own keeps the form readable in the darker pigments. */
export function sectionSkin(number: number): THREE.MeshStandardMaterial {
  const { css } = SECTION_PIGMENTS[(number - 1) % SECTION_PIGMENTS.length];
  return new THREE.MeshStandardMaterial({
    color: css,
    emissive: css,
    emissiveIntensity: 0.22,
    roughness: 0.72,
    side: THREE.DoubleSide,
  });
}

/**
 * Raking light: lit from one side alone, with the line where light meets shadow drawn in.
 * `lamp` points from the piece to the lamp, in world space.
 */
export function raking(): THREE.ShaderMaterial {
  return new THREE.ShaderMaterial({
    side: THREE.DoubleSide,
    uniforms: { lamp: { value: new THREE.Vector3(1, 0, 0) } },
    vertexShader: `
      varying vec3 vNormalW;
      void main() {
        vNormalW = normalize(mat3(modelMatrix) * normal);
        gl_Position = projectionMatrix * modelViewMatrix * vec4(position, 1.0);
      }`,
    fragmentShader: `
      uniform vec3 lamp;
      varying vec3 vNormalW;
      void main() {
        float facing = dot(normalize(vNormalW), normalize(lamp));
        vec3 stone = mix(vec3(0.055, 0.065, 0.08), vec3(0.93, 0.88, 0.78), pow(max(facing, 0.0), 0.75));
        float width = max(fwidth(facing) * 1.6, 0.004);
        float line = 1.0 - smoothstep(width * 0.5, width, abs(facing));
        gl_FragColor = vec4(mix(stone, vec3(0.86, 0.32, 0.12), line), 1.0);
        #include <colorspace_fragment>
      }`,
  });
}

/** Colours of the survey's classes: free, low draft, locked. Told apart by lightness as well as hue. */
export const SURVEY_COLOURS = ["#dfe6da", "#e2b64a", "#8e2f4f"] as const;

/** Fill from thin (light) to the thickest there is (dark), 0..1. */
export const FILL_COLOURS = ["#f2d487", "#c4622d", "#5b1533"] as const;

export function fillColour(share: number): THREE.Color {
  const [thin, middle, thick] = FILL_COLOURS.map((css) => new THREE.Color(css));
  return share < 0.5 ? thin.lerp(middle, 2 * share) : middle.lerp(thick, Math.min(1, 2 * share - 1));
}

/** From never free (dark) to free from most pulls (light). */
export function countColour(share: number): THREE.Color {
  const low = new THREE.Color("#5b1533");
  const mid = new THREE.Color("#d59a3b");
  const high = new THREE.Color("#e9efe4");
  return share < 0.3 ? low.lerp(mid, share / 0.3) : mid.lerp(high, Math.min(1, (share - 0.3) / 0.5));
}
