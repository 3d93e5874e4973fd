/** Boxes that go by one word, and what tells them apart. */
export interface Family {
  /** What the whole family goes by, `;` between the phrases. */
  readonly says: string;
  /** Each box with its qualities; the first is what the plain word means. */
  readonly boxes: readonly (readonly [key: string, qualities?: string])[];
  /** The plain word means several things that nobody would exchange for one another: it is asked about. */
  readonly asks?: true;
  /** What is counted in it, such as loops: another number than the shelf has is asked about. */
  readonly counts?: string;
}
