import type { Reading } from '@pallmist/app';
import type { Admitted } from './steps.ts';

/**
 * A request without the names in its query that its page does not declare, such as those that mails and networks add to
 * follow visitors: the page is the same for all of them, so it is drawn and kept once. A name that looks like a slip stays,
 * since the page says so; so do Pallmist’s own names, which begin with “~”.
 * @returns what is shown, and the address by which it is kept
 */
export function withoutStrays(admitted: Admitted): { admitted: Admitted; address: string } {
  const { reading, hosted, request } = admitted;
  const address = request.originalUrl;
  const isStray = ({ name }: Reading['undeclared'][number]) => !name.startsWith('~') && !/^%7e/i.test(name);
  const strays = reading.undeclared.filter(isStray);
  const told = reading.problems.find(({ code }) => code === 'undeclared');
  // The list of names ends at a bound; what stands beyond it is not known.
  if (hosted.draft || strays.length === 0 || told?.severity !== 'note' || reading.undeclared.length >= mostListed)
    return { admitted, address };
  const names = new Set(strays.map(({ name }) => name));
  const [path = '', query = ''] = address.split(/\?(.*)/s);
  const kept = query.split('&').filter((pair) => !names.has(pair.split('=', 1)[0] ?? ''));
  const own = reading.undeclared.filter((one) => !isStray(one));
  return {
    admitted: {
      ...admitted,
      reading: {
        ...reading,
        undeclared: own,
        problems: own.length > 0 ? reading.problems : reading.problems.filter((problem) => problem !== told),
      },
    },
    address: kept.length === 0 ? path : `${path}?${kept.join('&')}`,
  };
}

/** Most names that a reading lists. */
const mostListed = 100;
