import { signalStore } from '@ngrx/signals';
import { EMPTY } from 'rxjs';
import { withAsked } from '../../state/asked';

export interface PageAt {
  upload: string;
  name: string;
  address: string;
}

export const PageStore = signalStore(
  withAsked((api, { upload, name, address }: PageAt) => (upload === '' ? EMPTY : api.webPage(upload, name, address))),
);
export const RobotsStore = signalStore(
  withAsked((api, address: string) => (address === '' ? EMPTY : api.robots(address))),
);
export const HarvestStore = signalStore(withAsked((api, id: number | null) => (id === null ? EMPTY : api.harvest(id))));
