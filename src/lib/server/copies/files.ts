import { sniff } from '../../core/formats';
import { sniffBytes } from '../../reading/sniff';
import type { Context } from '../access/context';
import type { Job } from '../jobs/repository';
import { textOfBytes } from '../../reading/text';
import { captureFile, type Into } from '../capture';
import { importFile } from '../imports';

/** Takes a file handed over the way it goes: references are imported, documents captured. */
export async function receiveFile(ctx: Context, bytes: Uint8Array, name: string, where: Into): Promise<Job> {
  if (sniffBytes(bytes) === 'text' && sniff(textOfBytes(bytes), name))
    return importFile(ctx, bytes, {
      fileName: name,
      toIntake: false,
      ...(where.projectId ? { projectId: where.projectId } : {}),
    });
  return captureFile(ctx, bytes, name, where);
}
