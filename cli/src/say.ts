/** One line on standard output. */
export const print = (line: string): void => {
  process.stdout.write(`${line}\n`);
};
/** One JSON document on standard output and nothing else. */
export const json = (document: unknown): void => {
  process.stdout.write(`${JSON.stringify(document, null, 2)}\n`);
};
