/** Growing lists of corners and triangles, for what cannot know their count beforehand; lists filled place by place. */

/** Coordinates farther from zero than this, in the file's unit, are a surveyor's: single floats would round them off. */
const FAR = 1000;

/** Brings points near zero while they are still double: by the first of them, in whole units, where that is far off. */
export class Recentring {
  private readonly origin = [0, 0, 0];
  private begun = false;

  /** The first point settles what is taken off. */
  begin(x: number, y: number, z: number): void {
    if (this.begun) return;
    this.begun = true;
    [x, y, z].forEach((value, a) => {
      if (Math.abs(value) > FAR) this.origin[a] = Math.round(value);
    });
  }

  along(axis: number, value: number): number {
    return value - this.origin[axis];
  }
}

/** A growing typed array for readers that cannot know a count beforehand. */
export class FloatList {
  data = new Float32Array(1 << 16);
  length = 0;

  /** @param centre what lies far off is brought near by it; left as it is where there is none */
  constructor(private readonly centre: Recentring | null = null) {}

  push3(x: number, y: number, z: number): void {
    if (this.length + 3 > this.data.length) this.data = grown(this.data, new Float32Array(this.data.length * 2));
    const { centre } = this;
    centre?.begin(x, y, z);
    this.data[this.length++] = centre ? centre.along(0, x) : x;
    this.data[this.length++] = centre ? centre.along(1, y) : y;
    this.data[this.length++] = centre ? centre.along(2, z) : z;
  }
  done(): Float32Array {
    return this.data.slice(0, this.length);
  }
}

export class IndexList {
  data = new Uint32Array(1 << 16);
  length = 0;
  push3(a: number, b: number, c: number): void {
    if (this.length + 3 > this.data.length) this.data = grown(this.data, new Uint32Array(this.data.length * 2));
    this.data[this.length++] = a;
    this.data[this.length++] = b;
    this.data[this.length++] = c;
  }
  done(): Uint32Array {
    return this.data.slice(0, this.length);
  }
}

function grown<T extends Float32Array | Uint32Array>(from: T, to: T): T {
  to.set(from as never);
  return to;
}

/** A list filled place by place: typed arrays' own `from` takes many times as long to call for every value. */
export function filledBy<T extends { readonly length: number; [place: number]: number }>(
  list: T,
  valueAt: (place: number) => number,
): T {
  for (let k = 0; k < list.length; k++) list[k] = valueAt(k);
  return list;
}
