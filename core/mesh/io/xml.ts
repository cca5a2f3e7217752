/**
 * A scan over the start tags of an XML document held as bytes, enough for mesh files of hundreds of megabytes:
 * no tree, no entities, no namespaces (prefixes are dropped). Not a general XML reader.
 */
import { ByteScanner } from "./scanner.ts";

export interface Attributes {
  /** The attribute's number; NaN when missing. */
  number(name: string): number;
  /** The attribute's text, or undefined. */
  text(name: string): string | undefined;
}

const LESS = 60;
const GREATER = 62;
const QUOTE = 34;
const APOSTROPHE = 39;
const COLON = 58;
const EQUALS = 61;
const SLASH = 47;

export function scanTags(bytes: Uint8Array, visit: (name: string, attributes: Attributes) => void): void {
  const scanner = new ByteScanner(bytes);
  let from = 0;
  let to = 0;
  const locate = (name: string): number => {
    for (let k = from; k < to; k++) {
      if (bytes[k] === QUOTE || bytes[k] === APOSTROPHE) {
        k = bytes.indexOf(bytes[k], k + 1);
        if (k < 0) return -1;
        continue;
      }
      if (bytes[k] > 32 && k > 0 && (bytes[k - 1] <= 32 || bytes[k - 1] === COLON) && matches(bytes, k, name)) {
        let at = k + name.length;
        while (bytes[at] <= 32) at++;
        if (bytes[at] !== EQUALS) continue;
        at++;
        while (bytes[at] <= 32) at++;
        return at + 1;
      }
    }
    return -1;
  };
  const attributes: Attributes = {
    number(name) {
      const at = locate(name);
      if (at < 0) return Number.NaN;
      scanner.at = at;
      return scanner.number();
    },
    text(name) {
      const at = locate(name);
      if (at < 0) return undefined;
      const stop = bytes.indexOf(bytes[at - 1], at);
      return stop < 0 ? undefined : String.fromCharCode(...bytes.subarray(at, Math.min(stop, at + 4096)));
    },
  };
  for (let at = bytes.indexOf(LESS); at >= 0; at = bytes.indexOf(LESS, to)) {
    to = bytes.indexOf(GREATER, at);
    if (to < 0) return;
    const first = bytes[at + 1];
    if (first === SLASH || first === 33 || first === 63) continue;
    let stop = at + 1;
    let nameStart = at + 1;
    while (stop < to && bytes[stop] > 32 && bytes[stop] !== SLASH) {
      if (bytes[stop] === COLON) nameStart = stop + 1;
      stop++;
    }
    from = stop;
    visit(String.fromCharCode(...bytes.subarray(nameStart, Math.min(stop, nameStart + 64))), attributes);
  }
}

function matches(bytes: Uint8Array, at: number, name: string): boolean {
  for (let k = 0; k < name.length; k++) if (bytes[at + k] !== name.charCodeAt(k)) return false;
  return true;
}
