<script lang="ts">
  import { Modal } from 'flowbite-svelte';

  let { open = $bindable(false) }: { open?: boolean } = $props();
  const GROUPS: [string, [string[], string][]][] = [
    [
      'Anywhere',
      [
        [['c'], 'capture something'],
        [['/'], 'search'],
        [['n'], 'start a source by hand'],
        [['g', 'then', 'i s p r d'], 'go to Intake, Sources, Passages, Reference list, Duplicates'],
        [['?'], 'these keys'],
      ],
    ],
    [
      'Sources',
      [
        [['j', 'k'], 'next, previous'],
        [['x'], 'select'],
        [['Enter'], 'open'],
        [['Esc'], 'select nothing'],
      ],
    ],
    [
      'Intake',
      [
        [['y'], 'looks right, go on'],
        [['j', 'k'], 'next, previous'],
        [['b'], 'put in the bin'],
      ],
    ],
    [
      'Reader',
      [
        [['Alt 1', 'to', '5'], 'tint, while keeping a passage'],
        [['Enter'], 'keep it'],
        [['Esc'], 'leave it'],
      ],
    ],
    [
      'Duplicates',
      [
        [['↑', '↓'], 'row'],
        [['←', '→'], 'value of this side'],
        [['m'], 'merge'],
        [['a'], 'keep apart'],
        [['l'], 'decide later'],
      ],
    ],
  ];
</script>

<Modal bind:open title="Keys" size="md" class="text-ink">
  <div class="grid gap-4 sm:grid-cols-2">
    {#each GROUPS as [name, keys] (name)}
      <section>
        <h4 class="mb-1 font-semibold">{name}</h4>
        {#each keys as [combo, what] (what)}
          <p class="flex gap-2 py-0.5">
            <span class="w-28 flex-none"
              >{#each combo as key (key)}{#if key === 'then' || key === 'to'}<small> {key} </small>{:else}<kbd
                    class="key">{key}</kbd
                  >&nbsp;{/if}{/each}</span
            >
            <span>{what}</span>
          </p>
        {/each}
      </section>
    {/each}
  </div>
</Modal>
