import type { OwnItem, PlanChange, PlanItem, PlanSettled } from '@isometra/contract';
import { hasItsTurn } from './recurring.js';
import { item } from './toDo.js';

/** What everything comes after, directly or through others. */
function closure(items: readonly PlanItem[]): (key: string) => ReadonlySet<string> {
  const byKey = new Map(items.map((one) => [one.key, one]));
  const known = new Map<string, ReadonlySet<string>>();
  const of = (key: string): ReadonlySet<string> => {
    const told = known.get(key);
    if (told) return told;
    const all = new Set<string>();
    // Named before it is filled: a circle ends here.
    known.set(key, all);
    for (const before of byKey.get(key)?.after ?? []) for (const one of [before, ...of(before)]) all.add(one);
    return all;
  };
  return of;
}

const ownItem = ({ id, title, minutes, wait, people, who, things, after, notBefore, price, by, at }: OwnItem): PlanItem =>
  item('own', id, {
    ...{ title, why: 'Added by hand.', minutes, wait, people: wait === null ? people : 0, who, things, after, notBefore },
    ...{ from: 'told', told: { why: '', by, at }, ...(price !== undefined && { buys: { what: title, price } }) },
  });

function changed(one: PlanItem, { minutes, wait, people, who, notBefore, after, why, by, at }: PlanChange): PlanItem {
  return {
    ...one,
    ...(minutes && one.wait === null && { minutes, from: 'told' as const }),
    ...(wait !== undefined && one.wait !== null && { wait, from: 'told' as const }),
    ...(people !== undefined && { people }),
    ...(who && { who }),
    ...(notBefore && { notBefore }),
    ...(after && { after: [...new Set([...one.after, ...after])] }),
    told: { why, by, at },
  };
}

/** Take items out: what came after one of them comes after what that one came after. */
function without(items: readonly PlanItem[], left: ReadonlySet<string>): readonly PlanItem[] {
  const byKey = new Map(items.map((one) => [one.key, one]));
  const standsFor = (key: string): readonly string[] => (left.has(key) ? (byKey.get(key)?.after ?? []).flatMap(standsFor) : [key]);
  return items.filter(({ key }) => !left.has(key)).map((one) => ({ ...one, after: [...new Set(one.after.flatMap(standsFor))] }));
}

/** Items in an order in which each stands after what it comes after; as far as that allows, in the order given. */
export function inPlanOrder(items: readonly PlanItem[], order: readonly string[] = []): readonly PlanItem[] {
  const wanted = new Map(order.map((key, i) => [key, i]));
  // What nobody placed stands after its neighbour in the list.
  let last = -1;
  const rank = new Map(
    items.map(({ key }, i) => {
      last = wanted.get(key) ?? last;
      return [key, [wanted.get(key) ?? last, wanted.has(key) ? -1 : i]] as const;
    }),
  );
  const of = (key: string): readonly [number, number] => rank.get(key) ?? [0, 0];
  const sorted = order.length
    ? [...items].sort((one, other) => of(one.key)[0] - of(other.key)[0] || of(one.key)[1] - of(other.key)[1])
    : items;
  return afterEach(sorted);
}

/** Each after what it comes after, otherwise as they stand. A circle stays where it is. */
function afterEach(items: readonly PlanItem[]): readonly PlanItem[] {
  const byKey = new Map(items.map((one) => [one.key, one]));
  const placed: PlanItem[] = [];
  const seen = new Set<string>();
  const place = (one: PlanItem): void => {
    if (seen.has(one.key)) return;
    seen.add(one.key);
    for (const before of one.after) {
      const other = byKey.get(before);
      if (other) place(other);
    }
    placed.push(one);
  };
  items.forEach(place);
  return placed;
}

/** Why an item cannot come after some others: one of them already comes after it. Undefined where it can. */
export function circleWith(items: readonly PlanItem[], key: string, after: readonly string[]): string | undefined {
  const before = closure(items);
  return after.find((other) => other === key || before(other).has(key));
}

/**
 * A plan as people have settled it: what they changed, added, left out and put in another order laid over what is known. What no longer
 * exists is passed over; what would close a circle too. What comes round again stands in the plan when it has its turn.
 *
 * @param today as 2026-11-29.
 */
export function arranged(items: readonly PlanItem[], { changes, own, order }: PlanSettled, today: string): readonly PlanItem[] {
  const all = [...items, ...own.filter((one) => one.doneAt === null && hasItsTurn(one, today)).map(ownItem)];
  const keys = new Set(all.map(({ key }) => key));
  let now: readonly PlanItem[] = all.map((one) => ({ ...one, after: one.kind === 'own' ? [] : one.after.filter((key) => keys.has(key)) }));
  const sound = (key: string, after: readonly string[]): readonly string[] =>
    after.filter((other) => keys.has(other) && circleWith(now, key, [other]) === undefined);
  for (const { key, after } of all.filter(({ kind }) => kind === 'own')) {
    const allowed = sound(key, after);
    now = now.map((one) => (one.key === key ? { ...one, after: [...allowed] } : one));
  }
  for (const change of changes) {
    const after = sound(change.key, change.after ?? []);
    now = now.map((one) => (one.key === change.key ? changed(one, { ...change, after: [...after] }) : one));
  }
  const left = new Set(changes.flatMap((change) => (change.left ? [change.key] : [])));
  return inPlanOrder(without(now, left), order);
}

/** An item put one place up or down: the new order of keys, or what stands in the way. */
export type Shifted = { readonly order: readonly string[] } | { readonly before: PlanItem; readonly after: PlanItem };

/**
 * Put an item so many places down (up, when negative) among the others.
 *
 * @returns the order of all keys, or the two items that may not change places; undefined at the end of the list.
 */
export function shifted(items: readonly PlanItem[], key: string, by: number): Shifted | undefined {
  const at = items.findIndex((one) => one.key === key);
  const to = at + by;
  if (at < 0 || by === 0 || to < 0 || to >= items.length) return undefined;
  const before = closure(items);
  const passed = by < 0 ? items.slice(to, at) : items.slice(at + 1, to + 1);
  const barred = passed.find((other) => (by < 0 ? before(key).has(other.key) : before(other.key).has(key)));
  if (barred) return by < 0 ? { before: barred, after: items[at] } : { before: items[at], after: barred };
  const keys = items.map((one) => one.key).filter((one) => one !== key);
  keys.splice(to, 0, key);
  return { order: keys };
}
