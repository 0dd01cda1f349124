/** Columns that name kept files, whose rows hold on to them. A test holds this against the columns there are. */
export const NAMED: readonly (readonly [table: string, column: string])[] = [
  ['copy', 'sha256'],
  ['copy', 'reading_sha256'],
  ['copy_picture', 'sha256'],
  ['passage', 'figure_sha256'],
  ['note', 'audio_sha256'],
  ['own_style', 'sha256'],
  ['draft', 'template_sha256'],
  ['draft_picture', 'sha256'],
];
