/** What is asked where it cannot be read how many people something takes. */
export const PEOPLE_ASKED = 'How many people? A whole number, 0 to 6.';

/** How many people something takes, as it is typed; undefined where that is no number of people. */
export function peopleTyped(typed: string): number | undefined {
  const people = Number(typed);
  return Number.isInteger(people) && people >= 0 && people <= 6 ? people : undefined;
}
