/** A note as far as it matters here. */
interface Linked {
  readonly id: string;
  readonly path: string;
  readonly supersedes: string | null;
}

/** Notes that were written on some rounds, each with what it superseded and what superseded it. */
export function remarksOf<Remark extends Linked>(remarks: readonly Remark[], roundIds: ReadonlySet<string>): Remark[] {
  const byId = new Map(remarks.map((remark) => [remark.id, remark]));
  const first = (remark: Remark): string => {
    const before = remark.supersedes === null ? undefined : byId.get(remark.supersedes);
    return before ? first(before) : remark.id;
  };
  const about = ({ path }: Linked): boolean => path.split(/[/?#=&]/).some((part) => roundIds.has(part));
  const wanted = new Set(remarks.filter(about).map(first));
  return remarks.filter((remark) => wanted.has(first(remark)));
}
