import { page } from '$app/state';
import { may, type Right, type Role } from '$lib/core/members';

/** Whether who looks may do something in the library that is open: what they may not is not offered to them. */
export const allows = (right: Right): boolean => may((page.data.role as Role | undefined) ?? 'owner', right);
