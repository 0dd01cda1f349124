/** Largest recording whose wave is drawn, in bytes, and how many bars it is drawn in. */
const DRAWN = 30 * 1024 * 1024;
export const BARS = 400;
/** Samples to the second the wave is made of. */
const RATE = 8_000;

/** How loud a recording is, from 0 to 1, in so many parts of equal length; nothing where it is too large or cannot be read. */
export async function wave(address: string, size: number): Promise<number[] | undefined> {
  if (size > DRAWN) return undefined;
  try {
    const bytes = await (await fetch(address)).arrayBuffer();
    const { length, getChannelData } = await decode(bytes);
    const samples = getChannelData();
    const step = Math.max(1, Math.floor(length / BARS));
    const peaks = Array.from({ length: BARS }, (_, i) => {
      let peak = 0;
      for (let at = i * step; at < Math.min(length, (i + 1) * step); at += 4)
        peak = Math.max(peak, Math.abs(samples[at]!));
      return peak;
    });
    const most = Math.max(...peaks, 0.05);
    return peaks.map((peak) => peak / most);
  } catch {
    return undefined;
  }
}

async function decode(bytes: ArrayBuffer): Promise<{ length: number; getChannelData: () => Float32Array }> {
  const buffer = await new OfflineAudioContext(1, 1, RATE).decodeAudioData(bytes);
  return { length: buffer.length, getChannelData: () => buffer.getChannelData(0) };
}
