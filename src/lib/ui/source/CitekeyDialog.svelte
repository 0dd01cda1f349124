<script lang="ts">
  import {
    Badge,
    Button,
    Checkbox,
    Dialog,
    Select,
    Table,
    TableBody,
    TableBodyCell,
    TableBodyRow,
    TableHead,
    TableHeadCell,
  } from '../kit';
  import {
    CITEKEY_BETWEEN,
    CITEKEY_PART_LABELS,
    CITEKEY_PARTS,
    type CitekeyPart,
    type CitekeyPattern,
  } from '$lib/core/source';
  import type { Made } from '$lib/server/many';
  import { call } from '../frame/client';
  import { attempt, done, doneWith } from '../frame/toasts.svelte';

  /** How citekeys are made, with what they would be for the sources listed. */
  let { open = $bindable(false), ids }: { open: boolean; ids: string[] } = $props();

  let pattern = $state<CitekeyPattern>();
  let shown = $state.raw<{ id: string; now: string; made: string }[]>([]);
  let renew = $state(false);

  $effect(() => {
    if (open && !pattern)
      void attempt(() => call<CitekeyPattern>('GET', '/api/citekeys')).then(
        (p) => (pattern = p ?? undefined),
      );
    if (!open) [pattern, renew] = [undefined, false];
  });
  let asked = 0;
  $effect(() => {
    if (!pattern || pattern.parts.length === 0) return;
    const mine = ++asked;
    void call<typeof shown>('POST', '/api/citekeys', { pattern, ids: ids.slice(0, 5) }).then((keys) => {
      if (mine === asked) shown = keys;
    });
  });
  const left = $derived(CITEKEY_PARTS.filter((p) => !pattern?.parts.includes(p)));
  function move(at: number, by: number) {
    const parts: CitekeyPart[] = [...pattern!.parts];
    const [part] = parts.splice(at, 1);
    parts.splice(at + by, 0, part!);
    pattern!.parts = parts;
  }
  const NAMES: Record<string, string> = {
    '': 'nothing',
    '-': 'hyphen  -',
    _: 'underscore  _',
    ':': 'colon  :',
    '.': 'point  .',
  };

  async function keep() {
    const made = await attempt(() =>
      call<Made>('PATCH', '/api/citekeys', { pattern, ...(renew ? { renew: ids } : {}) }),
    );
    if (!made) return;
    const renewed = renew;
    open = false;
    if (!renewed) return done('Citekeys are made so from now on. Keys that were given stay.');
    await doneWith(
      made,
      ids.length,
      (n) =>
        `${n.toLocaleString('en')} ${n === 1 ? 'source has' : 'sources have'} a new citekey; the old ones still lead there.`,
    );
  }
</script>

<Dialog bind:open title="Citekeys" size="sm">
  {#if pattern}
    <div class="grid gap-4">
      <div>
        <p class="small-label">Made of</p>
        <ol class="parts">
          {#each pattern.parts as part, i (part)}
            <li>
              <Badge look="part">
                {#if i > 0}<Button
                    look="bare"
                    aria-label="{CITEKEY_PART_LABELS[part]}: earlier"
                    onclick={() => move(i, -1)}>‹</Button
                  >{/if}
                {CITEKEY_PART_LABELS[part]}
                {#if pattern.parts.length > 1}<Button
                    look="bare"
                    aria-label="Leave out {CITEKEY_PART_LABELS[part]}"
                    onclick={() => (pattern!.parts = pattern!.parts.filter((p) => p !== part))}>×</Button
                  >{/if}
              </Badge>
            </li>
          {/each}
        </ol>
        <div class="parts">
          {#each left as part (part)}
            <Button look="chip" onclick={() => (pattern!.parts = [...pattern!.parts, part])}
              >+ {CITEKEY_PART_LABELS[part]}</Button
            >
          {/each}
        </div>
      </div>
      <label class="flex items-center gap-2"
        ><span class="small-label">Between the parts</span>
        <Select bind:value={pattern.between}>
          {#each CITEKEY_BETWEEN as sign (sign)}<option value={sign}>{NAMES[sign]}</option>{/each}
        </Select></label
      >
      <Table aria-label="Keys as they would be" aria-live="polite">
        <TableHead><TableHeadCell>now</TableHeadCell><TableHeadCell>made so</TableHeadCell></TableHead>
        <TableBody>
          {#each shown as key (key.id)}<TableBodyRow
              ><TableBodyCell class="break-all">{key.now}</TableBodyCell><TableBodyCell class="break-all"
                ><strong>{key.made}</strong></TableBodyCell
              ></TableBodyRow
            >{/each}
        </TableBody>
      </Table>
      <label class="flex items-center gap-2"
        ><Checkbox bind:checked={renew} /> Give the {ids.length.toLocaleString('en')} listed here new keys now</label
      >
      <p class="small-label">
        A key once given stays as it is through edits and merges. Letters are added where a key is taken.
      </p>
      <div><Button look="main" onclick={keep}>Make keys so</Button></div>
    </div>
  {/if}
</Dialog>

<style>
  .parts {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    margin-top: 6px;
  }
</style>
