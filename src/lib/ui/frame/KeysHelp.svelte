<script lang="ts">
  import { Button, Dialog, Input, Key, Toggle } from '../kit';
  import { choices, keepChoices } from './actions.svelte';
  import { ACTIONS, FIXED, heldBy, isCharacter, keyOf, pressed, shownKey } from './keys';

  /** All keys, and what the person may change of them. */
  let { open = $bindable(false) }: { open?: boolean } = $props();

  let changing = $state('');
  let trouble = $state('');
  const places = [...new Set([...Object.values(ACTIONS), ...FIXED].map((a) => a.place))];
  const of = (place: string) =>
    Object.entries(ACTIONS).filter(([id, a]) => a.place === place && (a.key || choices.keys[id]));
  /** The browser's own keys for editing stay as they are. */
  const canChange = (id: string) => !['undo', 'redo', 'commands'].includes(id);

  function take(event: KeyboardEvent, id: string) {
    if (['Tab', 'Shift', 'Control', 'Alt', 'Meta'].includes(event.key)) return;
    event.preventDefault();
    event.stopPropagation();
    const key = pressed(event);
    if (key === 'Escape') return (changing = '');
    const held = heldBy(id, key, choices);
    if (held) return (trouble = `${shownKey(key)} is for “${ACTIONS[held]!.name}” already.`);
    if (!isCharacter(key) && !/^(?:Alt|Ctrl)\+/.test(key))
      return (trouble = 'Take a single character, or one with Alt or Ctrl.');
    choices.keys[id] = key;
    [changing, trouble] = ['', ''];
    keepChoices();
  }
  function asShipped() {
    [choices.keys, choices.charactersOff, changing, trouble] = [{}, false, '', ''];
    keepChoices();
  }
</script>

<Dialog bind:open title="Keys" size="lg">
  <div class="columns">
    {#each places as place (place)}
      <section>
        <h4>{place}</h4>
        {#each of(place) as [id, { name }] (id)}
          <p>
            <span class="combo">
              {#if changing === id}
                <Input
                  class="!min-h-6 !w-24 !py-0 !text-xs"
                  aria-label="New key for {name}"
                  placeholder="press it"
                  readonly
                  autofocus
                  onkeydown={(e: KeyboardEvent) => take(e, id)}
                  onblur={() => (changing = '')}
                />
              {:else if canChange(id)}
                <Button
                  look="bare"
                  class="min-h-6 min-w-6"
                  title="Change this key"
                  aria-label="Change the key for {name}"
                  onclick={() => ([changing, trouble] = [id, ''])}
                  >{#if keyOf(id, choices)}<Key keys={shownKey(keyOf(id, choices))} />{:else}<span
                      class="small-label">off</span
                    >{/if}</Button
                >
              {:else}<Key keys={keyOf(id, choices)} />{/if}
            </span>
            <span>{name}</span>
          </p>
        {/each}
        {#each FIXED.filter((f) => f.place === place) as { name, keys } (name)}
          <p>
            <span class="combo"
              >{#each keys as key (key)}{#if key === '…'}…{:else}<Key keys={key} />{/if}
              {/each}</span
            >
            <span>{name}</span>
          </p>
        {/each}
      </section>
    {/each}
  </div>
  {#if trouble}<p class="pencil-red" role="alert">{trouble}</p>{/if}
  <div class="flex flex-wrap items-center gap-4 border-t border-rule pt-3">
    <Toggle bind:checked={choices.charactersOff} onchange={keepChoices}>Switch single characters off</Toggle>
    <span class="flex-1"></span>
    <span class="small-label">Choose a key to change it.</span>
    <Button small onclick={asShipped}>All as they came</Button>
  </div>
</Dialog>

<style>
  .columns {
    columns: 2 300px;
    column-gap: 28px;
  }
  section {
    margin-bottom: 14px;
    break-inside: avoid;
  }
  h4 {
    margin-bottom: 4px;
    font-weight: 650;
  }
  p {
    display: flex;
    gap: 10px;
    align-items: baseline;
    padding: 2px 0;
    font-size: 13px;
  }
  .combo {
    display: flex;
    flex: 0 0 124px;
    flex-wrap: wrap;
    gap: 3px;
  }
</style>
