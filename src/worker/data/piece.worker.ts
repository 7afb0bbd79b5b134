/** Audits pieces of a collected file, while others like it audit the others. */
import { expose } from 'comlink';
import { pieceApi } from '../../core/collected/piece-through';

expose(pieceApi());
