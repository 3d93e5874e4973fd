/** Channel messages as bytes and back (MIDI 1.0 Detailed Specification). Channels 1–16, data 0–127. */
export type ChannelMessage =
  | { readonly is: 'pc'; readonly channel: number; readonly program: number }
  | { readonly is: 'cc'; readonly channel: number; readonly controller: number; readonly value: number }
  | { readonly is: 'note'; readonly channel: number; readonly note: number; readonly velocity: number };

const STATUS = { note: 0x90, cc: 0xb0, pc: 0xc0 } as const;

const inRange = (what: string, n: number, least: number, most: number): number => {
  if (!Number.isInteger(n) || n < least || n > most)
    throw new RangeError(`${what} ${n} is outside ${least} to ${most}`);
  return n;
};

/**
 * @throws RangeError when a channel or data value cannot be on the wire.
 * @example toBytes({ is: 'pc', channel: 3, program: 6 }) // [0xC2, 6]
 */
export const toBytes = (message: ChannelMessage): readonly number[] => {
  const status = STATUS[message.is] | (inRange('channel', message.channel, 1, 16) - 1);
  switch (message.is) {
    case 'pc':
      return [status, inRange('program', message.program, 0, 127)];
    case 'cc':
      return [status, inRange('controller', message.controller, 0, 127), inRange('value', message.value, 0, 127)];
    case 'note':
      return [status, inRange('note', message.note, 0, 127), inRange('velocity', message.velocity, 0, 127)];
  }
};

/** Bank select MSB and LSB (controllers 0 and 32), then the program change: 8 bytes. */
export const bankAndProgram = (channel: number, bank: number, program: number): readonly number[] => [
  ...toBytes({ is: 'cc', channel, controller: 0, value: bank >> 7 }),
  ...toBytes({ is: 'cc', channel, controller: 32, value: bank & 0x7f }),
  ...toBytes({ is: 'pc', channel, program }),
];

/** A program change, with its bank where it has one, or a control change. */
export type SentMessage =
  | { readonly pc: number; readonly channel: number; readonly bank?: number }
  | { readonly cc: number; readonly value: number; readonly channel: number };

/** What goes over the wire for a message that a box sends. */
export const messageBytes = (message: SentMessage): readonly number[] => {
  const { channel } = message;
  if ('cc' in message) return toBytes({ is: 'cc', channel, controller: message.cc, value: message.value });
  return message.bank === undefined
    ? toBytes({ is: 'pc', channel, program: message.pc })
    : bankAndProgram(channel, message.bank, message.pc);
};

/** @example hex([0xC2, 6]) // 'C2 06' */
export const hex = (bytes: readonly number[]): string =>
  bytes.map((b) => b.toString(16).toUpperCase().padStart(2, '0')).join(' ');
