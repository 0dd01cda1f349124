<script lang="ts">
  import { Banner } from '$lib/ui/kit';
  import '../app.css';
  import { onMount } from 'svelte';
  import { afterNavigate, goto } from '$app/navigation';
  import { page } from '$app/state';
  import { may } from '$lib/core/members';
  import ByHandDialog from '$lib/ui/capture/ByHandDialog.svelte';
  import { byHand, openByHand } from '$lib/ui/capture/byhand.svelte';
  import { followWaiting, sendWaiting, waits } from '$lib/ui/capture/sending.svelte';
  import { noteWho } from '$lib/ui/capture/waiting';
  import WaitingHere from '$lib/ui/capture/WaitingHere.svelte';
  import Tray from '$lib/ui/capture/Tray.svelte';
  import { offer, onKey, readChoices } from '$lib/ui/frame/actions.svelte';
  import Commands from '$lib/ui/frame/Commands.svelte';
  import { ASIDE, STEPS } from '$lib/ui/frame/keys';
  import KeysHelp from '$lib/ui/frame/KeysHelp.svelte';
  import { drafts } from '$lib/ui/frame/drafts';
  import { follow, server } from '$lib/ui/frame/live.svelte';
  import Path from '$lib/ui/frame/Path.svelte';
  import Strip from '$lib/ui/frame/Strip.svelte';
  import Toasts from '$lib/ui/frame/Toasts.svelte';
  import { done, forgetDone, redoLast, undoLast } from '$lib/ui/frame/toasts.svelte';
  import Kit from '$lib/ui/kit/Kit.svelte';
  import CitationDialog from '$lib/ui/lists/CitationDialog.svelte';

  let { data, children } = $props();
  $effect.pre(() => drafts.of(data.person && data.personId));
  let strip: Strip | undefined = $state();
  /** Who is not let in yet sees the door, and nothing around it. */
  const atDoor = $derived(page.route.id?.startsWith('/(door)/') ?? false);
  let keys = $state(false);
  let commands = $state(false);
  let dark = $state(false);

  onMount(() => {
    dark = document.documentElement.classList.contains('dark');
    readChoices();
    drafts.sweep();
    document.documentElement.dataset.ready = 'true';
    dispatchEvent(new Event('live'));
    if (atDoor) return;
    const stops = [follow(), followWaiting()];
    return () => stops.forEach((stop) => stop());
  });
  $effect(() => {
    const who = { person: data.personId, library: data.libraryId };
    if (!atDoor && who.person) void noteWho(who).catch(() => undefined);
  });
  /** What waits in this browser and can be sent: by their ids, so that what was tried in vain is not tried again at once. */
  const sendable = $derived(
    atDoor
      ? ''
      : waits.all
          .filter((one) => !one.trouble && one.library === data.libraryId)
          .map((one) => one.id)
          .join(),
  );
  $effect(() => {
    if (!server.reached || !sendable) return;
    void sendWaiting().then((sent) => {
      if (sent)
        done(sent === 1 ? 'A capture that waited is sent.' : `${sent} captures that waited are sent.`);
    });
  });
  afterNavigate(({ from, to }) => {
    if (from?.url.pathname !== to?.url.pathname) forgetDone();
  });

  function turn() {
    dark = !dark;
    document.documentElement.classList.toggle('dark', dark);
    localStorage.setItem('retexa-light', dark ? 'dark' : 'light');
  }

  const goings = Object.fromEntries(
    [...STEPS, ...ASIDE].map(({ id, href }) => [`go ${id}`, () => goto(href)]),
  );
  offer(() => ({
    ...(may(data.role, 'edit') ? { capture: () => strip?.toCapture() } : {}),
    search: () => strip?.toSearch(),
    ...(may(data.role, 'edit') ? { 'by hand': () => openByHand() } : {}),
    commands: () => (commands = true),
    undo: undoLast(),
    redo: redoLast(),
    light: turn,
    members: () => goto('/members'),
    'look into style': () => goto('/styles'),
    ...(data.keeps ? { backup: () => goto('/backup') } : {}),
    keys: () => (keys = true),
    ...goings,
  }));
</script>

<svelte:window onkeydown={(event) => !atDoor && onKey(event)} />

<Kit>
  {#if atDoor}
    {@render children()}
    <Toasts />
  {:else if page.url.pathname === '/capture'}
    {@render children()}
    <Toasts />
  {:else}
    <a class="skip" href="#main">To the view</a>
    <div class="shell">
      <Strip bind:this={strip} {data} {dark} onlight={turn} onkeys={() => (keys = true)} />
      <Path counts={data.counts} choosing={data.choosing} saved={data.saved} savedCounts={data.savedCounts} />
      <main id="main" tabindex="-1">{@render children()}</main>
      <div class="band">
        {#if !server.reached}
          <Banner look="wrong" role="alert"
            >The server is not reached. What you type stays here, and is sent when it is back.</Banner
          >
        {/if}
        {#if !may(data.role, 'edit')}
          <Banner
            >You read {data.library}{may(data.role, 'annotate')
              ? ', and add passages and notes of your own. Records are changed by its editors.'
              : '. What is in it is changed by its editors.'}</Banner
          >
        {/if}
        <WaitingHere library={data.libraryId} />
        <Tray jobs={data.jobs} />
        <Toasts />
      </div>
    </div>
  {/if}
  {#if !atDoor}
    {#if byHand.open}<ByHandDialog />{/if}
    <CitationDialog style={data.look.name} />
    <KeysHelp bind:open={keys} />
    <Commands bind:open={commands} />
  {/if}
</Kit>

<style>
  .shell {
    display: grid;
    grid-template: 52px minmax(0, 1fr) auto / 176px minmax(0, 1fr);
    height: 100dvh;
  }
  main {
    display: flex;
    flex-direction: column;
    min-width: 0;
    min-height: 0;
    outline: none;
    background: var(--page);
    overflow: auto;
  }
  .skip {
    position: absolute;
    z-index: 60;
    top: -60px;
    left: 14px;
    padding: 8px 14px;
    border-radius: 6px;
    background: var(--page);
    color: var(--thread);
    font-weight: 650;
  }
  .skip:focus {
    top: 8px;
  }
  .band {
    display: flex;
    flex-wrap: wrap;
    grid-column: 2;
    align-items: flex-end;
    min-width: 0;
    background: var(--side);
  }
  @media print {
    .shell > :global(header),
    .band,
    .skip,
    .shell > :global(nav) {
      display: none;
    }
    .shell {
      display: block;
      height: auto;
    }
    main {
      display: block;
      overflow: visible;
    }
  }
  @media (max-width: 760px) {
    .shell {
      grid-template: auto 40px minmax(0, 1fr) auto / minmax(0, 1fr);
    }
    .band {
      grid-column: 1;
    }
  }
</style>
