import type { Schedule } from '@isometra/contract';
import type { Remote } from 'comlink';
import type { PlanAnswer, PlanWork } from '../workers/plan.worker';
import { PlanDraws } from './plan-draws';

const ANSWER = { problem: 'none' } as const;

/** Draws whose worker answers when it is told to, and tells its progress when it is told to. */
class ByHand extends PlanDraws {
  readonly asked: { readonly tell: (done: number) => void; readonly answer: (answer: PlanAnswer<Schedule>) => void }[] = [];

  protected override get remote(): Remote<PlanWork> {
    const draw: PlanWork['draw'] = (_job, _ends, tell) => new Promise((answer) => this.asked.push({ tell, answer }));
    return { draw } as unknown as Remote<PlanWork>;
  }
}

describe('the progress of draws', () => {
  it('is over once they have answered, also where the last of it comes after the answer', async () => {
    const draws = new ByHand();
    const done = draws.draw({}, []);
    draws.asked[0].tell(0.4);
    expect(draws.progress()).toBe(0.4);
    draws.asked[0].answer(ANSWER);
    await done;
    expect(draws.progress()).toBeNull();
    draws.asked[0].tell(1);
    expect(draws.progress()).toBeNull();
  });

  it('is that of the last job: an earlier one neither moves it nor ends it', async () => {
    const draws = new ByHand();
    const [first, second] = [draws.draw({}, []), draws.draw({}, [])];
    draws.asked[1].tell(0.2);
    draws.asked[0].tell(0.9);
    draws.asked[0].answer(ANSWER);
    await first;
    expect(draws.progress()).toBe(0.2);
    draws.asked[1].answer(ANSWER);
    await second;
    expect(draws.progress()).toBeNull();
  });
});
