import { auditOf } from '$lib/server/audit';
import { accountsThere } from '$lib/server/accounts';
import { invitationsOf, membersOf, privatePassages } from '$lib/server/libraries';
import { mailThere } from '$lib/server/mail';
import { may } from '$lib/core/members';
import { sharesOf } from '$lib/server/shares';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals, depends }) => {
  depends('retexa:members');
  const { ctx, asker } = locals;
  const leads = ctx.role === 'owner';
  const [members, invitations, audit, there, mine, shares] = await Promise.all([
    membersOf(ctx),
    leads ? invitationsOf(ctx) : [],
    leads ? auditOf(ctx) : [],
    accountsThere(ctx.db),
    privatePassages(ctx),
    sharesOf(ctx),
  ]);
  return {
    members,
    invitations,
    audit,
    leads,
    shares,
    mails: mailThere(),
    edits: may(ctx.role, 'edit'),
    alone: !there,
    keeps: asker?.kind === 'person' && asker.keeper,
    privately: mine.length,
  };
};
