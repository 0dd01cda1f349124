<script lang="ts">
  import { untrack } from 'svelte';
  import type { Look, Scope, ToldApart } from '$lib/server/lists';
  import { call } from '../frame/client';
  import { attempt } from '../frame/toasts.svelte';
  import { Button, Dialog, Progress } from '../kit';

  /** The works of a list that would be cited in the same words, and what the style does to tell each from the others. */
  let { scope, look, style, onclose }: { scope: Scope; look: Look; style: string; onclose: () => void } =
    $props();

  const AT_ONCE = 40;
  let open = $state(true);
  let told = $state.raw<ToldApart | undefined>();
  let shown = $state(AT_ONCE);
  type Work = ToldApart['groups'][number][number];

  $effect(() => {
    const asked = untrack(() => ({ scope, look }));
    void attempt(() => call<ToldApart>('POST', '/api/references/told', asked)).then((answer) => {
      if (answer) told = answer;
      else open = false;
    });
  });

  const still = $derived(told?.groups.flat().filter((work) => work.still).length ?? 0);
  const others = ({ others, many }: Work['given'][number]) =>
    `${others.map((name) => `“${name}”`).join(', ')}${many > others.length ? ` and ${many - others.length} more` : ''}`;
  /** What the style does for a work, and the option of the style that asks for it. */
  const steps = (
    work: Work,
    rule: string | undefined,
  ): { words: string; option: string; perhaps?: string | undefined }[] => [
    ...(work.names
      ? [{ words: `shows ${work.names} names instead of fewer`, option: 'disambiguate-add-names' }]
      : []),
    ...work.given.map((one) => ({
      words: one.many
        ? `tells more of the given name of “${one.name}”, since there is also ${others(one)}`
        : `tells more of the given name of “${one.name}”`,
      perhaps: one.perhaps,
      option: `givenname-disambiguation-rule="${rule}"`,
    })),
    ...(work.branch
      ? [{ words: 'prints what it keeps for works cited alike', option: 'disambiguate="true"' }]
      : []),
    ...(work.letter
      ? [
          {
            words: `puts the letter ${work.letter} behind the year, by its place in the list`,
            option: 'disambiguate-add-year-suffix',
          },
        ]
      : []),
  ];
</script>

<Dialog bind:open title="Cited alike, and told apart" size="lg" {onclose}>
  <div class="told">
    {#if !told}
      <Progress label="Looking for works cited alike" />
    {:else if !told.tells}
      <p>{style} does nothing to tell works apart that are cited in the same words.</p>
    {:else if !told.groups.length}
      <p>No two works of this list would be cited in the same words in {style}.</p>
    {:else}
      <p role="status">
        {#if still}<span class="pencil-red font-semibold"
            >{still} {still === 1 ? 'work is' : 'works are'} cited in the same words as another.</span
          >{/if}
        Each is shown as {style} cites it by itself{told.later ? ' when it was cited before' : ''}, with what
        the style does so that it is not taken for another.
      </p>
      {#each told.groups.slice(0, shown) as group, g (g)}
        <section aria-label={group.length > 1 ? `${group.length} cited alike` : group[0]!.title}>
          {#if group.length > 1}
            <h3>
              {group.length} would be cited as
              <span class="serif">{@html group[0]!.alone}</span>
            </h3>
          {/if}
          <ul>
            {#each group as work (work.id)}
              <li>
                <span class="now serif">{@html work.now}</span>
                <div>
                  <p><a class="link" href="/sources/{work.id}">{work.title}</a></p>
                  {#each steps(work, told.givenRule) as { words, option, perhaps }, s (s)}
                    <p class="step">
                      The style {words}. <code>{option}</code>
                      {#if perhaps}
                        If that is one person, <a class="link" href="/people?q={encodeURIComponent(perhaps)}"
                          >spell the name alike</a
                        >.
                      {/if}
                    </p>
                  {/each}
                  {#if work.still}
                    <p class="step">
                      <span class="pencil-red"
                        >Cited in the same words as {work.still}
                        {work.still === 1 ? 'other' : 'others'}</span
                      >: the style has nothing more. A date that is missing, or a given name written out, may
                      tell them apart.
                    </p>
                  {/if}
                </div>
              </li>
            {/each}
          </ul>
        </section>
      {/each}
      {#if told.groups.length > shown}
        <p>
          <Button onclick={() => (shown += AT_ONCE)}>
            Show {Math.min(AT_ONCE, told.groups.length - shown)} more of {told.groups.length - shown}
          </Button>
        </p>
      {/if}
    {/if}
  </div>
</Dialog>

<style>
  .told {
    display: grid;
    gap: 14px;
    max-height: 66vh;
    overflow-y: auto;
  }
  section {
    padding-top: 10px;
    border-top: 1px solid var(--rule);
  }
  h3 {
    margin-bottom: 6px;
    font-size: 14px;
    font-weight: 600;
  }
  ul {
    display: grid;
    gap: 8px;
  }
  li {
    display: grid;
    grid-template-columns: minmax(0, 13rem) minmax(0, 1fr);
    gap: 14px;
    font-size: 14px;
    line-height: 1.4;
  }
  .now {
    font-size: 15px;
    overflow-wrap: anywhere;
  }
  .step {
    color: var(--ink-2);
    font-size: 13px;
  }
  code {
    font-size: 12px;
    overflow-wrap: anywhere;
  }
  @media (max-width: 640px) {
    li {
      grid-template-columns: minmax(0, 1fr);
      gap: 2px;
    }
  }
</style>
