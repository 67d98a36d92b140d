// Brings a part of the application back when it dies, with growing pauses, and says so.

const sleep = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** Pauses before the next try, ms; the last one repeats. */
const PAUSES = [1000, 2000, 5000, 15_000, 60_000];
/** A part that ran so long was well: the pauses begin again from the first. */
const WELL_AFTER = 60_000;

/**
 * Start a part and keep it running. The first start must succeed: what it throws is passed on.
 *
 * @param name what a person calls it: "server". @param begin starts it; returns its running self with `ended`, a promise
 * of how it ended, and `stop`, which ends it. @param say tells a person.
 * @returns `stop`, which ends the part and the keeping.
 */
export async function keep(name, begin, say = console.error) {
  let stopped = false;
  let now = await begin();
  const watch = async () => {
    for (let failures = 0; !stopped;) {
      const since = Date.now();
      const how = now ? await now.ended : 'it did not start';
      if (stopped) return;
      failures = Date.now() - since > WELL_AFTER ? 0 : failures;
      const pause = PAUSES[Math.min(failures, PAUSES.length - 1)];
      failures += 1;
      say(`The ${name} has stopped (${how}). Starting it again in ${pause / 1000} s; nothing that was entered is lost.`);
      await sleep(pause);
      if (stopped) return;
      now = await begin().catch((error) => void say(error.message));
      if (now && stopped) return void (await now.stop());
      if (now) say(`The ${name} is running again.`);
    }
  };
  void watch();
  return {
    stop: async () => {
      stopped = true;
      await now?.stop();
    },
  };
}
