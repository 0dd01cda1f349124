/** Room around a leaf and between leaves, in pixels. */
const MARGIN = 18;

/**
 * Sets the leaves of a document in its frame: each as wide as the frame allows, its picture behind, its lines of text
 * laid over the printed ones so that they can be selected and marked. Gives the function that lays them anew when the
 * frame changes its width; it does nothing for a page of the web. Styles are set from here since nothing in the frame
 * may bring its own.
 */
export function layLeaves(doc: Document, copyId: string): () => void {
  const leaves = [...doc.querySelectorAll<HTMLElement>('section.leaf')];
  if (leaves.length === 0) return () => undefined;
  doc.body.classList.add('leaves');
  for (const leaf of leaves) {
    const picture = doc.createElement('img');
    picture.alt = '';
    picture.loading = 'lazy';
    picture.src = `/copies/${copyId}/leaves/${leaf.dataset.leaf}`;
    leaf.prepend(picture);
  }
  let laid = 0;
  return () => {
    const wide = doc.documentElement.clientWidth - 2 * MARGIN;
    if (wide <= 0 || wide === laid) return;
    laid = wide;
    for (const leaf of leaves) {
      const [width, height] = [Number(leaf.dataset.width), Number(leaf.dataset.height)];
      const scale = Math.min(wide, 900) / width;
      leaf.style.width = `${width * scale}px`;
      leaf.style.height = `${height * scale}px`;
      const lines = [...leaf.querySelectorAll<HTMLElement>('.line')];
      for (const line of lines) {
        const [x, y, size] = [Number(line.dataset.x), Number(line.dataset.y), Number(line.dataset.s)];
        line.style.left = `${x * scale}px`;
        line.style.top = `${(y - size * 0.98) * scale}px`;
        line.style.fontSize = `${size * scale}px`;
        line.style.transform = '';
      }
      // All widths are read before any is changed, so that the page is laid out once for a leaf.
      const widths = lines.map((line) => line.getBoundingClientRect().width);
      lines.forEach((line, i) => {
        const wanted = Number(line.dataset.w) * scale;
        if (widths[i]! > 0) line.style.transform = `scaleX(${wanted / widths[i]!})`;
      });
    }
  };
}
