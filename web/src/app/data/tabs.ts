/**
 * What one tab must do alone, and which tabs are open. A browser has locks of its own only on a page that it holds for safe: over
 * https, or from its own machine. A phone in the shop's network has none; there each tab does its own things one after the other,
 * and the server takes what is sent twice once.
 */
const locks = (): LockManager | undefined => (navigator as { readonly locks?: LockManager }).locks;

const HERE = 'isometra-here:';
/** ms between signs that a tab is open, and after how long without one it is gone. */
const BEAT = 2000;
const GONE = 3 * BEAT;

const running = new Map<string, Promise<unknown>>();

/** Do something while nobody else does anything of the same name. */
export function oneAtATime<T>(name: string, work: () => Promise<T>): Promise<T> {
  const own = locks();
  if (own) return own.request(name, work) as Promise<T>;
  const before = running.get(name) ?? Promise.resolve();
  const now = before.then(work, work);
  running.set(
    name,
    now.catch(() => undefined),
  );
  return now;
}

/** Say that this tab is open, under a name of its own, until the returned function is called. */
export function sayHere(name: string): () => void {
  const own = locks();
  if (own) {
    let release: () => void = () => undefined;
    void own.request(name, () => new Promise<void>((done) => (release = done))).catch(() => undefined);
    return () => release();
  }
  const say = (): void => {
    try {
      localStorage.setItem(HERE + name, String(Date.now()));
    } catch {
      // A full or forbidden store: others take this tab for gone, and send what it noted; the server takes it once.
    }
  };
  say();
  const beat = setInterval(say, BEAT);
  return () => {
    clearInterval(beat);
    localStorage.removeItem(HERE + name);
  };
}

/** Names of the tabs that are open. */
export async function open(): Promise<ReadonlySet<string>> {
  const own = locks();
  if (own) return new Set(((await own.query()).held ?? []).flatMap(({ name }) => name ?? []));
  const said = Object.keys(localStorage).filter((key) => key.startsWith(HERE));
  const old = said.filter((key) => Date.now() - Number(localStorage.getItem(key)) > GONE);
  for (const key of old) localStorage.removeItem(key);
  return new Set(said.filter((key) => !old.includes(key)).map((key) => key.slice(HERE.length)));
}
