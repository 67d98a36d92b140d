/** A short text in a JSON file: an id, initials, the name of a picture. */
const SHORT = /"((?:[^"\\]|\\.){1,64})"/g;

/** Paths by the names under which their things are mentioned. */
export function byName(pairs: readonly (readonly [name: string, path: string])[]): ReadonlyMap<string, readonly string[]> {
  const paths = new Map<string, string[]>();
  for (const [name, path] of pairs) paths.set(name, [...(paths.get(name) ?? []), path]);
  return paths;
}

/**
 * Which of some things are mentioned by name in files: a piece of kit by its id or its name, a person by the initials, a photograph by its SHA-256.
 * What is mentioned by something that was mentioned is found as soon as that is read too.
 */
export class Mentions {
  private readonly found = new Set<string>();
  private readonly told = new Set<string>();

  /** @param known paths of the things by the names under which they are mentioned; two pieces of kit may have one name. */
  constructor(private readonly known: ReadonlyMap<string, readonly string[]>) {}

  /** Look through a file, as JSON text. */
  read(text: string): void {
    for (const [, written] of text.matchAll(SHORT)) {
      const name = written.includes('\\') ? (JSON.parse(`"${written}"`) as string) : written;
      for (const path of this.known.get(name) ?? []) this.found.add(path);
    }
  }

  /** What was found since this was asked last, in order. */
  next(): string[] {
    const fresh = [...this.found].filter((path) => !this.told.has(path)).sort();
    for (const path of fresh) this.told.add(path);
    return fresh;
  }
}
