import { useEffect } from 'react';
import { useLocation } from 'react-router';
import { stationIds, stationText } from '@fairwatt/core';

const pages: Readonly<Record<string, string>> = {
  jobs: 'Jobs',
  supplies: 'Supplies',
  'cable-bags': 'Cable bags',
  guide: 'What is this plug?',
  instruments: 'Instruments',
  record: 'Record',
  settings: 'Settings',
  people: 'People',
  enrol: 'A new device',
  health: 'State of the application',
};

/** What the window is called at an address. */
export function titleOf(pathname: string): string {
  const [first = '', code, station] = pathname.split('/').filter((piece) => piece !== '');
  const id = stationIds.find((candidate) => candidate === station);
  const place =
    first === 'jobs' && code !== undefined ? `${code}${id === undefined ? '' : ` ${stationText[id]}`}` : pages[first];
  return place === undefined ? 'Fair Watt' : `${place} · Fair Watt`;
}

/**
 * Each address has its title. The address is the next screen's while the last one is still shown: whose screen is
 * drawn stands at the document.
 */
export function useTitle(): void {
  const { pathname, search } = useLocation();
  useEffect(() => {
    document.title = titleOf(pathname);
    document.documentElement.dataset['at'] = pathname + search;
  }, [pathname, search]);
}
