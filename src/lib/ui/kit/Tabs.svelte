<script lang="ts" generics="Id extends string">
  import { TabItem, Tabs } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';
  import { buttonLook } from './looks';

  interface Props {
    /** What is chosen between, said to assistive technology. */
    label: string;
    tabs: readonly { id: Id; name: string }[];
    selected: Id;
    /** What is shown of the one selected. */
    children: Snippet<[Id]>;
  }
  /** Several things in one place, one of them shown. The arrows go from one to the next (WAI-ARIA tabs). */
  let { label, tabs, selected = $bindable(), children }: Props = $props();

  const own = $props.id();
  const keyOf = (id: Id) => `${own}-${id}`;
  const look = buttonLook({ look: 'chip', small: true });

  const step = (event: KeyboardEvent) => {
    const at = tabs.findIndex(({ id }) => id === selected);
    const to = {
      ArrowRight: (at + 1) % tabs.length,
      ArrowLeft: (at + tabs.length - 1) % tabs.length,
      Home: 0,
      End: tabs.length - 1,
    }[event.key];
    if (to === undefined) return;
    event.preventDefault();
    selected = tabs[to]!.id;
    document.getElementById(keyOf(selected))?.focus();
  };
</script>

<Tabs
  tabStyle="none"
  divider={false}
  aria-label={label}
  onkeydown={step}
  bind:selected={() => keyOf(selected), (key) => (selected = key.slice(own.length + 1) as Id)}
  class="gap-1.5 space-x-0 p-2"
  classes={{
    content: 'mt-0 flex min-h-0 flex-1 flex-col rounded-none bg-transparent p-0 dark:bg-transparent',
  }}
>
  {#each tabs as { id, name } (id)}
    <TabItem
      key={keyOf(id)}
      title={name}
      open={id === selected}
      activeClass={`${look} border-thread bg-thread-soft`}
      inactiveClass={look}>{@render children(id)}</TabItem
    >
  {/each}
</Tabs>
