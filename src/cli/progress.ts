import { sentence } from '$core/messages';
import { thousands } from '$core/numbers';
import type { Progress } from '$crawl/index';

const PLAIN_MS = 5000;

/**
 * Tells how a crawl goes: one line that is written over on a terminal, otherwise a plain line now and then.
 * @param columns width of the terminal
 */
export function progressWriter(out: NodeJS.WriteStream) {
  const began = Date.now();
  let lastPlain = 0;
  const line = ({ done, known, current, trouble }: Progress) => {
    if (trouble) return sentence(trouble);
    const seconds = (Date.now() - began) / 1000;
    const rate = seconds > 0 ? Math.round(done / seconds) : 0;
    return `${thousands(done)} done of ${thousands(known)} known, ${thousands(rate)} a second  ${current ?? ''}`;
  };
  return {
    show(progress: Progress) {
      if (out.isTTY) out.write(`\r\x1b[K${line(progress).slice(0, Math.max(20, (out.columns ?? 80) - 1))}`);
      else if (Date.now() - lastPlain >= PLAIN_MS) {
        lastPlain = Date.now();
        out.write(`${line(progress)}\n`);
      }
    },
    end() {
      if (out.isTTY) out.write('\r\x1b[K');
    },
  };
}
