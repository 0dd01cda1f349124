<script lang="ts">
  import { tick } from 'svelte';
  import { page } from '$app/state';
  import { may, type Role } from '$lib/core/members';
  import type { Crossed } from '$lib/server/crossing';
  import { call } from '../frame/client';
  import { renew } from '../frame/live.svelte';
  import { attempt, doneWithUndo } from '../frame/toasts.svelte';
  import { Button, Dialog, Radio, Select } from '../kit';

  /** Brings sources to another library one may edit. */
  let { ids, onclose }: { ids: string[]; onclose: (gone: boolean) => void } = $props();
  const libraries = $derived(
    (page.data.libraries as { id: string; name: string; role: Role }[]).filter(
      ({ id, role }) => id !== page.data.libraryId && may(role, 'edit'),
    ),
  );
  // svelte-ignore state_referenced_locally
  let libraryId = $state(libraries[0]?.id ?? '');
  let how = $state('copy');
  let busy = $state(false);
  const MOST = 500;
  const many = (n: number, one: string) => `${n.toLocaleString('en')} ${n === 1 ? one : `${one}s`}`;

  async function bring() {
    busy = true;
    const move = how === 'move';
    const to = libraryId;
    const name = libraries.find(({ id }) => id === to)?.name ?? '';
    const made = await attempt(() => call<Crossed>('POST', '/api/crossings', { ids, libraryId: to, move }));
    busy = false;
    if (!made) return;
    const parts = [
      made.added ? `${many(made.added, 'source')} ${move ? 'moved' : 'copied'} to ${name}` : '',
      made.known ? `${many(made.known, 'source')} known there already` : '',
      made.documents ? many(made.documents, 'document') : '',
      made.passages ? `${many(made.passages, 'passage')} of yours` : '',
    ].filter(Boolean);
    const moved = move ? [...ids] : [];
    onclose(move);
    // What is said of it stands at the foot, and not over the dialogue that goes.
    await tick();
    doneWithUndo(`${parts.join(', ')}.`, async () => {
      await call('DELETE', '/api/crossings', { libraryId: to, ids: made.ids, moved });
      await renew('sources');
    });
    await renew('sources');
  }
</script>

<Dialog open title="To another library" size="sm" onclose={() => onclose(false)}>
  {#if libraries.length === 0}
    <p>
      There is no other library that you may change. Make one among the <a class="link" href="/members"
        >members</a
      >, or ask the owner of one to make you an editor.
    </p>
  {:else if ids.length > MOST}
    <p>At most {MOST} sources go over at once. Select fewer.</p>
  {:else}
    <div class="grid gap-3">
      <p>
        Records, documents and your own passages go along; what others keep stays here. What is there already
        is not made twice.
      </p>
      <label
        ><span class="small-label">Library</span><Select bind:value={libraryId}>
          {#each libraries as { id, name } (id)}<option value={id}>{name}</option>{/each}
        </Select></label
      >
      <div class="grid gap-1">
        <Radio name="how" value="copy" bind:group={how}>Copy: they stay here too</Radio>
        {#if may(page.data.role, 'edit')}<Radio name="how" value="move" bind:group={how}
            >Move: here they go into the bin, with what others kept on them</Radio
          >{/if}
      </div>
      <div>
        <Button look="main" onclick={bring} disabled={busy || !libraryId}
          >Bring {many(ids.length, 'source')} over</Button
        >
      </div>
    </div>
  {/if}
</Dialog>
