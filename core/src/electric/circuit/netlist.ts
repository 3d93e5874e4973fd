import type { Element } from './circuit.js';

/**
 * A circuit as a netlist that circuit simulators read, with its frequency response from a hertz to a megahertz.
 * @param perDecade points in a decade
 */
export const netlist = (title: string, elements: readonly Element[], output: string, perDecade: number): string => {
  const lines = elements.map((e) => {
    switch (e.is) {
      case 'source':
        return `${named('V', e.name)} ${e.n1} ${e.n2} AC 1`;
      case 'amplifier':
        return `${named('E', e.name)} ${e.n1} ${e.n2} ${e.ctrlP} ${e.ctrlN} ${e.gain}`;
      case 'resistor':
        return `${named('R', e.name)} ${e.n1} ${e.n2} ${e.value}`;
      case 'capacitor':
        return `${named('C', e.name)} ${e.n1} ${e.n2} ${e.value}`;
      case 'inductor':
        return `${named('L', e.name)} ${e.n1} ${e.n2} ${e.value}`;
    }
  });
  return [
    `* ${title.replaceAll(/\s+/g, ' ')}`,
    ...lines,
    `.ac dec ${perDecade} 1 1e6`,
    `.print ac vdb(${output})`,
    '.end',
    '',
  ].join('\n');
};

/** Simulators tell the kind of a part by the first letter of its name. */
const named = (letter: string, name: string): string =>
  name.toUpperCase().startsWith(letter) ? name : `${letter}${name}`;
