import { PATIENCE } from './patience.js';

jest.setTimeout(4 * PATIENCE);
