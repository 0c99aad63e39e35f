import { expose } from 'comlink';
import { newSizingSession } from './sizing-session.ts';

expose(newSizingSession());
