/** The path of the form field that a hand has come to, "bar.diameter"; '' for what is no field of a form. */
export const fieldInHand = (event: FocusEvent): string =>
  (event.target as HTMLElement).closest<HTMLElement>('[data-field]')?.dataset['field'] ?? '';
