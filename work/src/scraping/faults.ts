import { CHECKS, type Fault } from '@isometra/core';
import type { DeskEntry, Surface } from '@isometra/contract';

const fault = (path: string, message: string, example: string): Fault => ({ path, message, example });

/** What a face cannot be: zones named twice or off it, a target upside down, a liner that is thinner than it must stay. */
export function surfaceFaults(surface: Surface): Fault[] {
  const { id, target, material, liner, aim, mate } = surface;
  const quantity = aim && CHECKS.get(aim.check)?.quantities[aim.quantity];
  return [
    ...zoneFaults(surface),
    ...(target && target.low > target.high ? [fault('target.low', 'is above the most', `${target.high}`)] : []),
    ...(material === 'liner' && !liner ? [fault('liner', 'is missing: how thick it is, and what it must keep', '1500 and 1200')] : []),
    ...(liner && liner.keep > liner.thickness ? [fault('liner.keep', 'is more than it has', `${liner.thickness}`)] : []),
    ...(mate?.surfaceId === id ? [fault('mate.surfaceId', 'is this face itself', 'another face of the machine')] : []),
    ...(aim && !quantity ? [fault('aim.quantity', 'is no quantity of that check', 'squareness of saddle-squareness')] : []),
  ];
}

function zoneFaults({ zones, width, height }: Surface): Fault[] {
  const ids = zones.map(({ id }) => id);
  const twice = ids.find((id, i) => ids.indexOf(id) !== i);
  const off = zones.findIndex(({ outline }) => outline.some(({ x, y }) => x < -0.5 || y < -0.5 || x > width + 0.5 || y > height + 0.5));
  return [
    ...(twice === undefined ? [] : [fault('zones', `zone ${twice} is there twice`, 'a number for each')]),
    ...(off < 0
      ? []
      : [
          fault(
            `zones[${off}].outline`,
            `zone ${zones[off].id} reaches over the edge of the face, ${width} × ${height} mm`,
            'corners on the face',
          ),
        ]),
    ...(zones.some(({ use }) => use === 'bear') ? [] : [fault('zones', 'no zone is to bear', 'use: "bear" for one at least')]),
  ];
}

/** Entries that count: what was put right or taken back is left out. */
export function standing(entries: readonly DeskEntry[]): DeskEntry[] {
  const gone = new Set(entries.map(({ supersedes }) => supersedes));
  return entries.filter(({ id, kind }) => !gone.has(id) && kind !== 'withdrawn');
}

const zonesNamed = (entry: DeskEntry): readonly (readonly [string, string])[] => {
  if (entry.kind === 'pass') return [['content.zone', entry.content.zone]];
  if (entry.kind === 'plan') return entry.content.depths.map(({ zone }, i) => [`content.depths[${i}].zone`, zone] as const);
  return [];
};

/** What an entry cannot be: about a zone that the face has not, a turn beyond its edge, in the place of what does not count any more. */
export function entryFaults(entry: DeskEntry, surface: Surface, written: readonly DeskEntry[]): Fault[] {
  const known = surface.zones.map(({ id }) => id);
  const faults = zonesNamed(entry).flatMap(([path, zone]) =>
    known.includes(zone) ? [] : [fault(path, `the face has no zone ${zone}`, known.join(', '))],
  );
  if (entry.kind === 'hinge') faults.push(...hingeFaults(entry.content));
  if (surface.putAway)
    faults.push(
      fault('surfaceId', 'this face is archived: restore it before you write anything down', 'take it out again on its card first'),
    );
  if (entry.kind === 'pass' && surface.heldBack)
    faults.push(fault('content.zone', 'this face is held back to compare with: nothing comes off it', 'lift that on its card first'));
  if ((entry.kind === 'lock' || (entry.kind === 'blue' && entry.content.clamped)) && !surface.shell)
    faults.push(fault('kind', 'only a bearing shell is clamped and locks', 'a face that is a bearing shell'));
  if (entry.kind === 'measure' && !surface.aim)
    faults.push(fault('kind', 'this face has no target to be measured against', 'a target on the face'));
  return [...faults, ...replacingFaults(entry, surface, written)];
}

/** A turn beyond the end of what bears. */
function hingeFaults({ length, a, b, again }: Extract<DeskEntry, { readonly kind: 'hinge' }>['content']): Fault[] {
  const ends = { a, b, again: again ? Math.max(again.a, again.b) : 0 };
  return Object.entries(ends).flatMap(([end, at]) =>
    at > length + 0.5 ? [fault(`content.${end}`, `is beyond the bearing, which is ${length} mm long`, `${Math.round(length / 3)}`)] : [],
  );
}

/** An entry in the place of one that is not there, or was of another kind. */
function replacingFaults({ kind, supersedes }: DeskEntry, surface: Surface, written: readonly DeskEntry[]): Fault[] {
  if (supersedes === null) return kind === 'withdrawn' ? [fault('supersedes', 'is missing: what is taken back', 'the id of an entry')] : [];
  const replaced = written.find(({ id, surfaceId }) => id === supersedes && surfaceId === surface.id);
  if (!replaced) return [fault('supersedes', 'no such entry on this face', 'the id of one of its entries')];
  return kind === 'withdrawn' || replaced.kind === kind
    ? []
    : [fault('kind', `cannot stand for what was a ${replaced.kind}`, replaced.kind)];
}
