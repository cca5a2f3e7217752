/**
 * Reads words and numbers out of ASCII bytes without making strings: the text readers spend their time here.
 */
export class ByteScanner {
  at = 0;
  constructor(
    readonly bytes: Uint8Array,
    start = 0,
    readonly end = bytes.length,
  ) {
    this.at = start;
  }

  /** Skips blanks but not line ends; false at the end of the line or of the data. */
  toNextOnLine(): boolean {
    while (this.at < this.end) {
      const c = this.bytes[this.at];
      if (c === 10 || c === 13) return false;
      if (c > 32) return true;
      this.at++;
    }
    return false;
  }

  /** Skips blanks and line ends; false at the end of the data. */
  toNext(): boolean {
    while (this.at < this.end && this.bytes[this.at] <= 32) this.at++;
    return this.at < this.end;
  }

  skipLine(): void {
    while (this.at < this.end && this.bytes[this.at] !== 10) this.at++;
    this.at++;
  }

  /** Length of the word here. */
  private wordEnd(): number {
    let k = this.at;
    while (k < this.end && this.bytes[k] > 32) k++;
    return k;
  }

  /** The word here as text; moves past it. */
  word(): string {
    const stop = this.wordEnd();
    let text = "";
    for (let k = this.at; k < stop; k++) text += String.fromCharCode(this.bytes[k]);
    this.at = stop;
    return text;
  }

  /** Is this exact word here? Moves past it when it is. */
  accept(word: string): boolean {
    const stop = this.at + word.length;
    if (stop > this.end || (stop < this.end && this.bytes[stop] > 32)) return false;
    for (let k = 0; k < word.length; k++) if (this.bytes[this.at + k] !== word.charCodeAt(k)) return false;
    this.at = stop;
    return true;
  }

  /** The number here, NaN where none stands; moves past its characters. */
  number(): number {
    const { bytes } = this;
    const start = this.at;
    let k = start;
    let sign = 1;
    if (bytes[k] === 45) {
      sign = -1;
      k++;
    } else if (bytes[k] === 43) k++;
    let mantissa = 0;
    let exponent = 0;
    let digits = 0;
    while (k < this.end && bytes[k] >= 48 && bytes[k] <= 57) {
      mantissa = mantissa * 10 + (bytes[k++] - 48);
      digits++;
    }
    if (bytes[k] === 46) {
      k++;
      while (k < this.end && bytes[k] >= 48 && bytes[k] <= 57) {
        mantissa = mantissa * 10 + (bytes[k++] - 48);
        exponent--;
        digits++;
      }
    }
    if (digits === 0) {
      this.at = Math.max(this.wordEnd(), start + 1);
      return Number.NaN;
    }
    if (k < this.end && (bytes[k] === 101 || bytes[k] === 69)) {
      k++;
      let expSign = 1;
      if (bytes[k] === 45) {
        expSign = -1;
        k++;
      } else if (bytes[k] === 43) k++;
      let e = 0;
      while (k < this.end && bytes[k] >= 48 && bytes[k] <= 57) e = e * 10 + (bytes[k++] - 48);
      exponent += expSign * e;
    }
    this.at = k;
    return sign * scaleByTen(mantissa, exponent);
  }
}

const POWERS = Array.from({ length: 23 }, (_, k) => 10 ** k);

function scaleByTen(mantissa: number, exponent: number): number {
  if (exponent === 0) return mantissa;
  if (exponent > 0) return exponent < 23 ? mantissa * POWERS[exponent] : mantissa * 10 ** exponent;
  return exponent > -23 ? mantissa / POWERS[-exponent] : mantissa * 10 ** exponent;
}
