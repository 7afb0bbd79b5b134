/** Makes some files of a package, while the worker that started it makes the others. */
import { expose } from 'comlink';
import { besideApi } from '../../core/release/formats/made-beside';

expose(besideApi());
