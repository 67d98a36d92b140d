import type { Other, OthersSay } from '@isometra/work';
import { capital } from '../ui/say';
import { shortDateWords } from '../data/when';

const named = (others: readonly Other[]): string => others.map(({ name, at }) => `${name} (${shortDateWords(at)})`).join(' and ');

/**
 * What the other stations say of one that is off, and what is moved or changed for it: the whole turret, or this one alone.
 *
 * @param register the move is a value in the control, not bolts.
 */
export function othersWords({ alike, apart }: OthersSay, register: boolean): string {
  const alikeWords = `${capital(named(alike))} ${alike.length > 1 ? 'are' : 'is'} off alike`;
  if (alike.length && apart.length)
    return `${alikeWords}, ${named(apart)} not. Look at the plates first: neither the whole turret nor one station alone accounts for all of them.`;
  const [all, one] = register
    ? ['a register that shifts all of them', 'a register of this station. One that shifts all of them would put the others out']
    : [
        'the turret has gone over, and is moved with every station',
        'the plate of this station. The whole turret moved over would put the others out',
      ];
  if (alike.length) return `${alikeWords}: ${all}.`;
  if (apart.length)
    return `${capital(named(apart))} ${apart.length > 1 ? 'were' : 'was'} not off: ${one}. If anything has happened since, sweep another station again first.`;
  return `No other station has been read. Sweep one before anything is ${register ? 'entered' : 'loosened'}. If it is off alike, all of them are; if it is in, only this one is off.`;
}
