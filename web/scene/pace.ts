/**
 * Waits for the graphics processor without holding the page up. Asking it anything while it is busy makes the page wait
 * for all that was handed to it before; a fence can be looked at without waiting.
 */
import type * as THREE from "three";

/** How often a fence is looked at, ms. */
const LOOK_EVERY_MS = 8;

/** Resolves when all that was handed to the renderer so far is done. */
export function drawn(renderer: THREE.WebGLRenderer): Promise<void> {
  const gl = renderer.getContext() as WebGL2RenderingContext;
  const fence = gl.fenceSync(gl.SYNC_GPU_COMMANDS_COMPLETE, 0);
  gl.flush();
  if (!fence) return Promise.resolve();
  return new Promise((resolve) => {
    const look = () => {
      if (!gl.isContextLost() && gl.getSyncParameter(fence, gl.SYNC_STATUS) !== gl.SIGNALED) {
        setTimeout(look, LOOK_EVERY_MS);
        return;
      }
      gl.deleteSync(fence);
      resolve();
    };
    setTimeout(look, 0);
  });
}

const kept = new WeakSet<object>();

/**
 * Keeps the shader programs a renderer has compiled. It drops a program with the last material that uses it, and what is
 * shown changes its materials with every station: each time they would be compiled again.
 */
export function keepPrograms({ info }: Pick<THREE.WebGLRenderer, "info">): void {
  for (const program of info.programs ?? []) {
    if (kept.has(program)) continue;
    kept.add(program);
    program.usedTimes++;
  }
}
