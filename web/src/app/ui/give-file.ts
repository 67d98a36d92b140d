/** Hand something to the person as a file of JSON. */
export const giveJson = (name: string, content: unknown): void =>
  giveFile(name, 'application/json', `${JSON.stringify(content, null, 2)}\n`);

/** Hand a text to the person as a file. */
export function giveFile(name: string, type: string, text: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([text], { type }));
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href));
}
