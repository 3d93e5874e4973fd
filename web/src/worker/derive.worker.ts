import { expose } from 'comlink';
import { Deriving } from './deriving.js';

expose(new Deriving());
