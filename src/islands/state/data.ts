/** What the Codes stop keeps while a study is open: the data worker, and the file that is audited. */
import { createContext, useContext } from 'react';
import { DataClient } from '../../worker/data/client';
import { createAuditStore, type AuditStore } from './audit-session';

export interface Data {
  readonly client: DataClient;
  readonly audit: AuditStore;
}

export function newData(): Data {
  const client = new DataClient();
  return { client, audit: createAuditStore(client) };
}

export const DataContext = createContext<Data | null>(null);

export function useData(): Data {
  const data = useContext(DataContext);
  if (data === null) throw new Error('no data is at hand here');
  return data;
}
