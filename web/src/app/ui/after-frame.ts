/**
 * Run something once the next frame has been painted: a task that is begun in a frame's own callback comes after it.
 *
 * @returns stops it, as long as it has not run.
 */
export function afterFrame(run: () => void): () => void {
  let task: ReturnType<typeof setTimeout> | undefined;
  const frame = requestAnimationFrame(() => (task = setTimeout(run)));
  return () => {
    cancelAnimationFrame(frame);
    clearTimeout(task);
  };
}
