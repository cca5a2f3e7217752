/**
 * A function of a mesh alone that is worked out once for each mesh and kept as long as the mesh is: meshes are
 * immutable. What it returns must be too.
 */
export function perMesh<Mesh extends object, T>(make: (mesh: Mesh) => T): (mesh: Mesh) => T {
  const known = new WeakMap<Mesh, T>();
  return (mesh) => {
    let held = known.get(mesh);
    if (held === undefined) {
      held = make(mesh);
      known.set(mesh, held);
    }
    return held;
  };
}
