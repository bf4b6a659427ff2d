/**
 * Words of G-code (ISO 6983; NIST RS274/NGC, NISTIR 6556, as far as printers use them), read byte by byte from chunks of any size: a
 * file of 100 MB is never held. Comments (`;` to the end of the line, `( … )`), line numbers, checksums and text after a number are
 * left out; a letter without a number counts as present and zero, as printer firmware takes it.
 */
export interface Block {
  /** By letter, A to Z: the number beside it. */
  readonly value: Float64Array;
  /** Bit i set: letter i is there. */
  present: number;
  /** G, M or T with its number, which of them came first: `G1`, `M104`; empty where the line has none. */
  letter: number;
  code: number;
  /** Line of the file, from 1. */
  line: number;
}

export const A = 65;
const Z = 90;
const SEMICOLON = 59;
const OPEN = 40;
const CLOSE = 41;
const STAR = 42;
const NEWLINE = 10;
const DOT = 46;
const MINUS = 45;
const PLUS = 43;
const ZERO = 48;
const NINE = 57;
const LETTER_G = 6;
const LETTER_M = 12;
const LETTER_N = 13;
const LETTER_T = 19;
/** Codes whose rest of the line is text, not words: messages and file names. */
const TEXT_CODES: ReadonlySet<number> = new Set([23, 28, 30, 32, 117, 118]);

export const bit = (letter: string): number => 1 << (letter.charCodeAt(0) - A);
export const index = (letter: string): number => letter.charCodeAt(0) - A;

/** Reads chunks and hands on each line that has a word in it. The block is used again for the next line. */
export class WordReader {
  private readonly block: Block = { value: new Float64Array(26), present: 0, letter: -1, code: 0, line: 1 };
  /** Letter whose number is being read, or −1. */
  private letter = -1;
  private whole = 0;
  private places = 0;
  private negative = false;
  private digits = false;
  private dotted = false;
  /** 0 words, 1 comment or text to the end of the line, 2 in brackets. */
  private skip = 0;

  constructor(private readonly take: (block: Block) => void) {}

  /** The next bytes of the file. */
  write(bytes: Uint8Array): void {
    for (let i = 0; i < bytes.length; i++) {
      let c = bytes[i] as number;
      if (c === NEWLINE) {
        this.finishLine();
        continue;
      }
      if (this.skip !== 0) {
        if (this.skip === 2 && c === CLOSE) this.skip = 0;
        continue;
      }
      if (c >= ZERO && c <= NINE) {
        if (this.letter < 0) continue;
        this.digits = true;
        this.whole = this.whole * 10 + (c - ZERO);
        if (this.dotted) this.places++;
        continue;
      }
      if (c === DOT) {
        this.dotted = true;
        continue;
      }
      if (c === MINUS) {
        this.negative = true;
        continue;
      }
      // Lower case is upper case.
      if (c >= 97 && c <= 122) c -= 32;
      if (c >= A && c <= Z) {
        this.finishWord();
        if (this.skip === 0) this.letter = c - A;
      } else if (c === SEMICOLON || c === STAR) {
        this.finishWord();
        this.skip = 1;
      } else if (c === OPEN) {
        this.finishWord();
        this.skip = 2;
      } else if (c !== PLUS) this.finishWord();
    }
  }

  /** The file is at its end. */
  end(): void {
    this.finishLine();
  }

  private finishWord(): void {
    const { letter, block } = this;
    if (letter < 0) return;
    // Up to nine digits after the point are exact enough; a number of more is divided in one step, so that no error adds up.
    let value = this.places === 0 ? this.whole : this.whole / 10 ** this.places;
    if (this.negative) value = -value;
    if ((letter === LETTER_G || letter === LETTER_M || letter === LETTER_T) && block.letter < 0 && this.digits) {
      block.letter = letter;
      block.code = value;
      if (letter === LETTER_M && TEXT_CODES.has(value)) this.skip = 1;
    } else if (letter !== LETTER_N || block.present !== 0) {
      block.value[letter] = value;
      block.present |= 1 << letter;
    }
    this.letter = -1;
    this.whole = 0;
    this.places = 0;
    this.negative = false;
    this.digits = false;
    this.dotted = false;
  }

  private finishLine(): void {
    this.finishWord();
    const { block } = this;
    if (block.letter >= 0 || block.present !== 0) this.take(block);
    block.present = 0;
    block.letter = -1;
    block.line++;
    this.skip = 0;
    this.letter = -1;
    this.dotted = false;
    this.negative = false;
  }
}
