<script lang="ts">
  import {
    BookOpenOutline,
    BookOutline,
    ChartOutline,
    CodeOutline,
    FileLinesOutline,
    FileOutline,
    ClapperboardPlayOutline,
    GlobeOutline,
    GraduationCapOutline,
    ImageOutline,
    LandmarkOutline,
    MapPinAltOutline,
    MessagesOutline,
    MicrophoneOutline,
    MusicOutline,
    NewspaperOutline,
    ScaleBalancedOutline,
    UsersGroupOutline,
  } from 'flowbite-svelte-icons';
  import { TYPE_LABELS, type CslType } from '$lib/core/source';

  /** The glyph of a source's type, named for those who cannot see it. */
  let { type, class: className = '' }: { type: string; class?: string } = $props();

  const GLYPHS: Partial<Record<string, typeof BookOutline>> = {
    book: BookOpenOutline,
    classic: BookOpenOutline,
    pamphlet: BookOpenOutline,
    periodical: BookOpenOutline,
    chapter: BookOutline,
    'entry-encyclopedia': BookOutline,
    'entry-dictionary': BookOutline,
    entry: BookOutline,
    'article-newspaper': NewspaperOutline,
    'article-magazine': NewspaperOutline,
    thesis: GraduationCapOutline,
    webpage: GlobeOutline,
    'post-weblog': GlobeOutline,
    post: GlobeOutline,
    dataset: ChartOutline,
    software: CodeOutline,
    map: MapPinAltOutline,
    graphic: ImageOutline,
    figure: ImageOutline,
    motion_picture: ClapperboardPlayOutline,
    broadcast: ClapperboardPlayOutline,
    song: MusicOutline,
    musical_score: MusicOutline,
    interview: MicrophoneOutline,
    speech: MicrophoneOutline,
    personal_communication: MessagesOutline,
    'paper-conference': UsersGroupOutline,
    event: UsersGroupOutline,
    legislation: ScaleBalancedOutline,
    legal_case: ScaleBalancedOutline,
    bill: ScaleBalancedOutline,
    regulation: ScaleBalancedOutline,
    treaty: ScaleBalancedOutline,
    collection: LandmarkOutline,
    manuscript: FileOutline,
    document: FileOutline,
  };
  const Glyph = $derived(GLYPHS[type] ?? FileLinesOutline);
  const label = $derived(TYPE_LABELS[type as CslType] ?? type);
</script>

<span data-tip={label} class={className}><Glyph size="sm" ariaLabel={label} strokeWidth="1.6" /></span>
